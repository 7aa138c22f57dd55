import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '$lib/api/client';
import type { RigBench } from './bench.svelte';
import { TrialForm } from './trialForm.svelte';

const LINE = {
	seq: 7,
	digest: 'd7',
	trial: { kind: 'tiller', upper_mm: 190, lower_mm: 188, notes: 'cold', day: '2026-05-01' }
} as Schemas['TrialLine'];

function form(kept: boolean) {
	const log = vi.fn(async () => kept);
	const empty = vi.fn();
	const bench = { log, fault: 'someone else kept a change' } as unknown as RigBench;
	return { log, empty, form: new TrialForm('tiller', () => bench, empty) };
}
const read = async () => ({ upper_mm: 191, lower_mm: 188 });

describe('a form of a trial', () => {
	it('logs what was typed with what is kept beside it, and is empty afterwards', async () => {
		const { log, empty, form: f } = form(true);
		f.notes = 'dry';
		await f.log('tiller', read, { 'limbs.upper_turns': 0.5 });
		const trial = { kind: 'tiller', notes: 'dry', day: '', upper_mm: 191, lower_mm: 188 };
		expect(log).toHaveBeenCalledWith('tiller', trial, null, { 'limbs.upper_turns': 0.5 });
		expect(empty).toHaveBeenCalledOnce();
		expect(f.notes).toBe('');
	});

	it('keeps what was typed and says why where it was not taken', async () => {
		const { empty, form: f } = form(false);
		f.notes = 'dry';
		await f.log('tiller', read);
		expect(f.problem).toBe('someone else kept a change');
		await f.log('tiller', async () => {
			throw new Error('“x” is not a measurement');
		});
		expect(f.problem).toBe('“x” is not a measurement');
		expect(empty).not.toHaveBeenCalled();
		expect(f.notes).toBe('dry');
	});

	it('puts one right on its own day, and keeps no setting with it', async () => {
		const { log, form: f } = form(true);
		const fill = vi.fn();
		f.edit(fill)({ ...LINE, trial: { kind: 'in_line' } } as Schemas['TrialLine']);
		expect(f.about).toBeNull();
		f.edit(fill)(LINE);
		expect(fill).toHaveBeenCalledOnce();
		expect(f.notes).toBe('cold');
		await f.log('tiller', read, { 'limbs.upper_turns': 0.5 });
		const day = expect.objectContaining({ day: '2026-05-01', notes: 'cold' });
		expect(log).toHaveBeenCalledWith('tiller', day, { seq: 7, digest: 'd7' }, {});
		expect(f.about).toBeNull();
	});
});
