import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { onBench } from '$lib/tests/on-bench';
import ChoiceField from './ChoiceField.svelte';
import DistancesField from './DistancesField.svelte';
import DrawReadings from './DrawReadings.svelte';
import MeasureField from './MeasureField.svelte';
import ScaleReadings from './ScaleReadings.svelte';
import SelectField from './SelectField.svelte';

afterEach(() => vi.unstubAllGlobals());

describe('a measurement of the rig', () => {
	it('changes the rig on the bench and shows what is kept', async () => {
		const { bench } = await onBench(MeasureField, { path: 'archer.draw_length_in' });
		const field = screen.getByLabelText('Draw length') as HTMLInputElement;
		expect(field.value).toBe('28');
		await fireEvent.input(field, { target: { value: '29.5' } });
		await waitFor(() => expect(bench.value('archer.draw_length_in')).toBe(29.5));
		await fireEvent.blur(field);
		expect(await screen.findByText('kept: 28 in')).toBeInTheDocument();
		bench.revert();
		await waitFor(() => expect(field.value).toBe('28'));
	});

	it('counts in whole numbers', async () => {
		const { bench } = await onBench(MeasureField, { path: 'string.strands' });
		await fireEvent.input(screen.getByLabelText('Strands'), { target: { value: '16.4' } });
		await waitFor(() => expect(bench.value('string.strands')).toBe(16));
	});

	it('shows a refusal at the field', async () => {
		const { bench, server } = await onBench(MeasureField, { path: 'archer.draw_length_in' });
		const reason = 'Draw length must be at most 34 in.';
		bench.set('archer.draw_length_in', 30);
		await waitFor(() => expect(server.asked.length).toBe(1));
		server.fail = {
			status: 422,
			body: { detail: reason, errors: [{ field: 'archer.draw_length_in', reason }] }
		};
		bench.set('archer.draw_length_in', 90);
		expect(await screen.findByText(reason)).toBeInTheDocument();
		expect(screen.getByLabelText('Draw length')).toHaveAttribute('aria-invalid', 'true');
	});

	it('knows nothing of a path that no rig has', async () => {
		const { container } = await onBench(MeasureField, { path: 'bow.colour' });
		expect(container.querySelector('input')).toBeNull();
	});
});

describe('choices', () => {
	it('sets the choice and what goes with it', async () => {
		const { bench } = await onBench(ChoiceField, {
			path: 'archer.release',
			also: (v: string) => ({ 'archer.hand': v === 'thumb' ? 'left' : 'right' })
		});
		expect(screen.getByRole('radio', { name: 'split finger' })).toBeChecked();
		await fireEvent.click(screen.getByRole('radio', { name: 'thumb' }));
		await waitFor(() => expect(bench.value('archer.release')).toBe('thumb'));
		expect(bench.value('archer.hand')).toBe('left');
	});

	it('selects from a list', async () => {
		const { bench } = await onBench(SelectField, { path: 'use' });
		const list = screen.getByLabelText('Used for') as HTMLSelectElement;
		expect(list.value).toBe('range');
		await fireEvent.change(list, { target: { value: 'woodland' } });
		expect(bench.value('use')).toBe('woodland');
	});
});

describe('distances', () => {
	it('are read one after another, sorted, each once', async () => {
		const { bench } = await onBench(DistancesField);
		const field = screen.getByLabelText('Distances, m') as HTMLInputElement;
		expect(field.value).toBe('10 20');
		await fireEvent.input(field, { target: { value: '30 10, 20 yd 30' } });
		await waitFor(() =>
			expect(bench.value('aim.distances_m')).toEqual([10, expect.closeTo(18.288), 30])
		);
	});

	it('may not be none', async () => {
		const { bench, server } = await onBench(DistancesField);
		const reason = 'Distances takes at least 1 entries; 0 were given.';
		server.fail = {
			status: 422,
			body: { detail: reason, errors: [{ field: 'aim.distances_m', reason }] }
		};
		await fireEvent.input(screen.getByLabelText('Distances, m'), { target: { value: ' ' } });
		expect(await screen.findByText(reason)).toBeInTheDocument();
		expect(bench.refused['aim.distances_m']).toBe(reason);
	});
});

async function type(label: string, text: string): Promise<void> {
	const field = screen.getByLabelText(label);
	await fireEvent.input(field, { target: { value: text } });
	await fireEvent.submit(field.closest('form')!);
}

describe('readings of a draw', () => {
	it('come to a mean that can be taken', async () => {
		const { bench, server } = await onBench(DrawReadings);
		await type('A reading', '28');
		await screen.findByRole('button', { name: /28 ×/ });
		await type('A reading', '29');
		await screen.findByRole('button', { name: /29 ×/ });
		await fireEvent.click(screen.getByRole('button', { name: 'Take it' }));
		await waitFor(() => expect(bench.changes).not.toEqual({}));
		expect(bench.changes).toEqual({
			'archer.draw_length_in': 28.5,
			'archer.draw_method': 'marked_arrow',
			'archer.draw_plus_minus_in': 0.25
		});
		const asked = server.asked.filter((a) => a.path.endsWith('/draw-length'));
		expect(asked.at(-1)?.body).toMatchObject({ readings_in: [28, 29], convention: 'trade' });
	});

	it('are taken out again, and counted anew by another method', async () => {
		const { server } = await onBench(DrawReadings);
		await type('A reading', '28');
		await fireEvent.change(screen.getByLabelText('Method'), { target: { value: 'arm_span' } });
		await waitFor(() => expect(server.asked.at(-1)?.body.method).toBe('arm_span'));
		expect(screen.queryByLabelText('Read to')).toBeNull();
		await fireEvent.click(await screen.findByRole('button', { name: /28 ×/ }));
		await waitFor(() => expect(screen.queryByRole('button', { name: 'Take it' })).toBeNull());
	});

	it('typed faster than they are read are all counted, in their order', async () => {
		const { server } = await onBench(DrawReadings);
		for (const reading of ['28', '28.5', '29']) {
			await fireEvent.input(screen.getByLabelText('A reading'), { target: { value: reading } });
			await fireEvent.submit(screen.getByLabelText('A reading').closest('form')!);
		}
		const last = () => server.asked.findLast((a) => a.path.endsWith('/draw-length'))?.body;
		await waitFor(() => expect(last()).toMatchObject({ readings_in: [28, 28.5, 29] }));
	});

	it('are all taken, also one that is on its way when the button is pressed', async () => {
		const { bench } = await onBench(DrawReadings);
		await type('A reading', '28');
		const take = await screen.findByRole('button', { name: 'Take it' });
		await type('A reading', '29');
		await fireEvent.click(take);
		await waitFor(() => expect(bench.changes).toMatchObject({ 'archer.draw_length_in': 28.5 }));
	});

	it('go out once, however often it is pressed', async () => {
		const { server } = await onBench(DrawReadings);
		await type('A reading', '28');
		const first = await screen.findByRole('button', { name: /28 ×/ });
		await type('A reading', '29');
		await screen.findByRole('button', { name: /29 ×/ });
		await fireEvent.click(first);
		await fireEvent.click(first);
		await waitFor(() => expect(screen.queryByRole('button', { name: /28 ×/ })).toBeNull());
		await type('A reading', '30');
		await screen.findByRole('button', { name: /30 ×/ });
		const asked = server.asked.findLast((a) => a.path.endsWith('/draw-length'));
		expect(asked?.body.readings_in).toEqual([29, 30]);
	});

	it('are not taken by a way that they cannot have been read in', async () => {
		const { server } = await onBench(DrawReadings);
		await type('A reading', '28');
		await screen.findByRole('button', { name: /28 ×/ });
		server.fail = { status: 422, body: { detail: 'That is no span.', errors: [] } };
		await fireEvent.change(screen.getByLabelText('Method'), { target: { value: 'arm_span' } });
		expect(await screen.findByText('That is no span.')).toBeInTheDocument();
		await waitFor(() => expect(screen.queryByRole('button', { name: 'Take it' })).toBeNull());
		expect(screen.getByRole('button', { name: /28 ×/ })).toBeInTheDocument();
	});

	it('keep nonsense in the field and say why', async () => {
		await onBench(DrawReadings);
		await type('A reading', 'far');
		expect(await screen.findByText('“far” is not a measurement.')).toBeInTheDocument();
		expect(screen.getByLabelText('A reading')).toHaveValue('far');
	});
});

describe('readings of a scale', () => {
	it('are sorted, replace an older one at the same draw, and go out again', async () => {
		const { bench } = await onBench(ScaleReadings);
		const add = async (draw: string, weight: string, n: number) => {
			await fireEvent.input(screen.getByLabelText('Draw of the reading'), {
				target: { value: draw }
			});
			await type('Weight of the reading', weight);
			await screen.findByRole('button', { name: new RegExp(`${weight}.*${draw}.*×`) });
			expect(screen.getAllByRole('button', { name: /×/ })).toHaveLength(n);
		};
		await add('28', '37', 1);
		await add('20', '21', 2);
		await add('28', '38', 2);
		expect(bench.value('bow.measured')).toEqual([
			[20, 21],
			[28, 38]
		]);
		await fireEvent.click(screen.getAllByRole('button', { name: /×/ })[0]!);
		expect(bench.value('bow.measured')).toEqual([[28, 38]]);
	});

	it('an empty draw means your own', async () => {
		const { bench } = await onBench(ScaleReadings);
		await type('Weight of the reading', '36.5');
		await waitFor(() => expect(bench.value('bow.measured')).toEqual([[28, 36.5]]));
	});
});
