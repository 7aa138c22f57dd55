import { render, screen } from '@testing-library/svelte';
import { fireEvent } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '$lib/api/client';
import { reference } from '$lib/bench/reference.svelte';
import { catalog } from '$lib/tests/answers';
import Keeping from './Keeping.svelte';
import PartFields from './PartFields.svelte';
import PartShape from './PartShape.svelte';
import PartState from './PartState.svelte';
import ShaftTable from './ShaftTable.svelte';

const LINE: Schemas['PartLine'] = {
	digest: 'd'.repeat(32),
	mark: 'a'.repeat(32),
	seq: 0,
	kind: 'string',
	name: 'Spare',
	what: { text: 'polyester', values: {}, words: {} },
	state: 'in_use',
	kept: null,
	stop: null,
	looked: null,
	due: [],
	size_in: 60,
	rigs: []
};
const KEPT: Schemas['Keeping'] = {
	state: 'in_use',
	to: '',
	since: '',
	due_back: '',
	why: '',
	word: ''
};
const said = (text: string) => ({ text, values: {}, words: {} });

describe('where a part is', () => {
	it('is free, on a rig, lent or stopped, whichever weighs most', async () => {
		const view = render(PartState, { line: LINE });
		expect(screen.getByText('free')).toBeInTheDocument();
		const on = { rig_id: 1, rig: 'Field', slot: 'string' as const, is_on: true, last_at: '' };
		await view.rerender({ line: { ...LINE, rigs: [on] } });
		expect(screen.getByText('on Field')).toBeInTheDocument();
		await view.rerender({ line: { ...LINE, rigs: [on], kept: said('lent to Mina') } });
		expect(screen.getByText('lent to Mina')).toBeInTheDocument();
		await view.rerender({ line: { ...LINE, kept: said('lent'), stop: said('cracked') } });
		expect(screen.getByText('Stop:')).toBeInTheDocument();
	});

	it('is drawn as long as it is, or not at all', async () => {
		const view = render(PartShape, { kind: 'bow', size: 60, inch: 2 });
		expect(view.container.querySelector('svg')).toHaveAttribute('width', '128');
		await view.rerender({ kind: 'bow', size: 70, inch: 2 });
		expect(view.container.querySelector('svg')).toHaveAttribute('width', '148');
		await view.rerender({ kind: 'bow', size: null, inch: 2 });
		expect(screen.getByText('size not set')).toBeInTheDocument();
	});

	it('is lent to somebody, and condemned by somebody’s word', async () => {
		const onkeep = vi.fn(async () => true);
		render(Keeping, { line: LINE, keeping: KEPT, busy: false, onkeep });
		await fireEvent.click(screen.getByText('Lend'));
		expect(screen.getByText('Lend it')).toBeDisabled();
		await fireEvent.input(screen.getByLabelText('To'), { target: { value: 'Mina' } });
		await fireEvent.click(screen.getByText('Lend it'));
		expect(onkeep).toHaveBeenCalledWith(
			expect.objectContaining({ 'keeping.state': 'lent', 'keeping.to': 'Mina' }),
			'Spare is lent to Mina.'
		);
		await fireEvent.click(screen.getByText('Condemn'));
		await fireEvent.input(screen.getByLabelText('Why'), { target: { value: 'worn' } });
		expect(screen.getByText('Condemn it')).toBeDisabled();
	});
});

describe('what a part is', () => {
	it('shows each field of its kind with its words, and tells what is chosen', async () => {
		reference.catalog = catalog;
		const onset = vi.fn();
		render(PartFields, { kind: 'string', body: { material: 'polyester', strands: 14 }, onset });
		expect(screen.getByLabelText('Strands')).toHaveValue('14');
		await fireEvent.change(screen.getByLabelText('Material'), { target: { value: 'natural' } });
		expect(onset).toHaveBeenCalledWith('material', 'natural');
	});

	it('numbers shafts on from the last', async () => {
		reference.catalog = catalog;
		const onset = vi.fn();
		const shaft = { number: 7, mass_gr: 401, static_spine: 600, runout_mm: null, notes: '' };
		render(ShaftTable, { shafts: [{ ...shaft, state: 'whole' }], onset });
		await fireEvent.click(screen.getByText('Add six'));
		expect(onset.mock.calls[0]![0].map((s: { number: number }) => s.number)).toEqual([
			7, 8, 9, 10, 11, 12, 13
		]);
		await fireEvent.change(screen.getByLabelText('State of shaft 7'), {
			target: { value: 'broken' }
		});
		expect(onset.mock.calls[1]![0][0].state).toBe('broken');
	});
});
