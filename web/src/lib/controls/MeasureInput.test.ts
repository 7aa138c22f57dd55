import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Catalog } from '$lib/api/client';
import { reference } from '$lib/bench/reference.svelte';
import MeasureInput from './MeasureInput.svelte';

const unit = (id: string, per_base: number, label: string, decimals: number, denominator = 0) => ({
	id,
	dimension: 'length',
	per_base,
	label,
	decimals,
	denominator
});
const note = {
	path: 'archer.draw_length_in',
	title: 'Draw length',
	help: 'Trade standard.',
	quantity: 'draw',
	low: 18,
	high: 34,
	choices: [],
	words: {},
	optional: true
};
const answers: Record<string, number> = { '28 3/4': 28.75, '73 cm': 28.7402 };

beforeEach(() => {
	reference.catalog = {
		units: {
			in_8: unit('in_8', 0.0254, 'in', 1, 8),
			mm: unit('mm', 0.001, 'mm', 0),
			in: unit('in', 0.0254, 'in', 2)
		},
		quantities: { draw: { id: 'draw', title: 'Draw', stored: 'in', choices: ['in_8', 'mm'] } },
		fields: {},
		stations: [],
		forms: {}
	} as unknown as Catalog;
	reference.units = {};
	vi.stubGlobal('fetch', async (request: Request) => {
		const { text } = await request.json();
		const value = answers[text];
		const body = value === undefined ? { detail: `“${text}” is not a measurement.` } : { value };
		return new Response(JSON.stringify(body), {
			status: value === undefined ? 422 : 200,
			headers: { 'content-type': 'application/json' }
		});
	});
});
afterEach(() => vi.unstubAllGlobals());

function show(props: Record<string, unknown> = {}) {
	const onvalue = vi.fn();
	const view = render(MeasureInput, { note, value: 28, reset: 0, onvalue, ...props });
	return { onvalue, ...view, field: screen.getByLabelText('Draw length') as HTMLInputElement };
}

describe('a measurement field', () => {
	it('shows the value as a fraction with its unit', () => {
		const { field } = show({ value: 28.75 });
		expect(field.value).toBe('28 3/4');
		expect(screen.getByText('in')).toBeInTheDocument();
	});

	it('reads what is typed and says what it understood', async () => {
		const { field, onvalue, rerender } = show();
		await fireEvent.input(field, { target: { value: '73 cm' } });
		await waitFor(() => expect(onvalue).toHaveBeenCalledWith(28.7402));
		await rerender({ value: 28.7402 });
		expect(screen.getByText('understood: 28 3/4 in')).toBeInTheDocument();
		expect(field.value).toBe('73 cm');
		await fireEvent.blur(field);
		expect(field.value).toBe('28 3/4');
	});

	it('keeps nonsense in the field and says why', async () => {
		const { field, onvalue } = show();
		await fireEvent.input(field, { target: { value: 'long' } });
		await screen.findByText('“long” is not a measurement.');
		await fireEvent.blur(field);
		expect(field.value).toBe('long');
		expect(field).toHaveAttribute('aria-invalid', 'true');
		expect(onvalue).not.toHaveBeenCalled();
	});

	it('keeps nonsense too when the field is left before it was read', async () => {
		const { field } = show();
		await fireEvent.input(field, { target: { value: 'long' } });
		await fireEvent.blur(field);
		await screen.findByText('“long” is not a measurement.');
		expect(field.value).toBe('long');
	});

	it('shows the value once what was typed is read, when the field was left before', async () => {
		const { field, onvalue } = show();
		await fireEvent.input(field, { target: { value: '73 cm' } });
		await fireEvent.blur(field);
		await waitFor(() => expect(onvalue).toHaveBeenCalledWith(28.7402));
		await waitFor(() => expect(field.value).toBe('28'));
	});

	it('clears an optional value and shows what is assumed', async () => {
		const { field, onvalue, rerender } = show({ assumed: 27.5 });
		await fireEvent.input(field, { target: { value: '' } });
		expect(onvalue).toHaveBeenCalledWith(null);
		await rerender({ value: null });
		expect(field.placeholder).toBe('27 1/2');
		expect(screen.getByText('assumed until set')).toBeInTheDocument();
	});

	it('steps with the arrows within its range', async () => {
		const { field, onvalue, rerender } = show({ value: 33.9 });
		await fireEvent.keyDown(field, { key: 'ArrowUp' });
		expect(onvalue).toHaveBeenLastCalledWith(34);
		await rerender({ value: 28 });
		await fireEvent.keyDown(field, { key: 'ArrowDown' });
		expect(onvalue).toHaveBeenLastCalledWith(27.875);
	});

	it('gives the slider the same bounds and its value', async () => {
		const { onvalue } = show({ low: 24, high: 30 });
		const slider = screen.getByLabelText('Draw length, slider') as HTMLInputElement;
		expect([slider.min, slider.max, slider.value]).toEqual(['24', '30', '28']);
		await fireEvent.input(slider, { target: { value: '29' } });
		expect(onvalue).toHaveBeenCalledWith(29);
	});

	it('shows a refusal of the models and what is kept', async () => {
		const { rerender } = show({ problem: 'Past what this bow allows.', kept: '27 in' });
		expect(screen.getByText('Past what this bow allows.')).toBeInTheDocument();
		await rerender({ problem: null });
		expect(screen.getByText('kept: 27 in')).toBeInTheDocument();
	});

	it('gives way to the value when the changes are thrown away', async () => {
		const { field, rerender } = show({ reset: 1 });
		await fireEvent.input(field, { target: { value: 'long' } });
		await screen.findByText('“long” is not a measurement.');
		await rerender({ reset: 2 });
		expect(field.value).toBe('28');
	});

	it('follows the chosen unit', () => {
		reference.units = { draw: 'mm' };
		expect(show({ value: 28 }).field.value).toBe('711');
	});
});

describe('the keys of a field', () => {
	const press = (key: string, more: KeyboardEventInit = {}) =>
		fireEvent.keyDown(screen.getByLabelText('Draw length'), { key, ...more });

	it('tell what it is, in place', async () => {
		render(MeasureInput, { props: { note, value: 28, onvalue: vi.fn() } });
		await press('?');
		expect(screen.getByRole('note')).toHaveTextContent('Trade standard.');
		expect(screen.getByRole('note')).toHaveTextContent('Unit: in.');
		await press('Escape');
		expect(screen.queryByRole('note')).toBeNull();
		await fireEvent.click(screen.getByRole('button', { name: 'What is Draw length?' }));
		expect(screen.getByRole('note')).toBeInTheDocument();
	});

	it('clear what cannot be read, and leave what can', async () => {
		const onunread = vi.fn();
		render(MeasureInput, { props: { note, value: 28, onvalue: vi.fn(), onunread } });
		const field = screen.getByLabelText('Draw length') as HTMLInputElement;
		await fireEvent.input(field, { target: { value: 'long' } });
		await waitFor(() => expect(onunread).toHaveBeenLastCalledWith(expect.stringMatching('long')));
		expect(await press('Escape')).toBe(false); // nobody else hears it
		expect(onunread).toHaveBeenLastCalledWith(null);
		expect(field.value).toBe('28');
		expect(await press('Escape')).toBe(true);
	});

	it('ask to keep what was typed, but for the chord that asks it everywhere', async () => {
		const onenter = vi.fn();
		render(MeasureInput, { props: { note, value: 28, onvalue: vi.fn(), onenter } });
		await press('Enter', { ctrlKey: true });
		expect(onenter).not.toHaveBeenCalled();
		await press('Enter');
		expect(onenter).toHaveBeenCalledOnce();
	});
});
