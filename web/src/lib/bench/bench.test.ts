import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { RigBench, type Choice, type TrialOf } from './bench.svelte';
import { serve } from '$lib/tests/fake';

let server: ReturnType<typeof serve>;
let bench: RigBench;

beforeEach(async () => {
	server = serve();
	bench = await RigBench.open(1);
	server.asked.length = 0;
});
afterEach(() => vi.unstubAllGlobals());

const HELD: TrialOf<'hold'> = {
	kind: 'hold',
	weight_lbf: 36,
	seconds: 9,
	ended: 'steady',
	day: '',
	notes: ''
};
const DRAW = 'archer.draw_length_in';
const settled = () => vi.waitFor(() => expect(server.asked.length).toBeGreaterThan(0));

describe('a rig on the bench', () => {
	it('opens as it is kept', () => {
		expect(bench.dirty).toBe(false);
		expect(bench.value(DRAW)).toBe(28);
		expect(bench.bench).toBe(bench.keptBench);
	});

	it('asks what a change would do and keeps the kept beside it', async () => {
		bench.set(DRAW, 29);
		expect(bench.dirty).toBe(true);
		await vi.waitFor(() => expect(bench.bench.tally[0]?.value?.value).toBe(29));
		expect(bench.keptBench.tally[0]?.value?.value).toBe(28);
		expect(server.asked[0]?.body).toEqual({ changes: { [DRAW]: 29 }, parts: [] });
	});

	it('asks only for what the station shows, and once', async () => {
		await bench.show('draw');
		expect(server.asked.at(-1)?.body).toEqual({ changes: {}, parts: ['draw'] });
		bench.set(DRAW, 29);
		await vi.waitFor(() => expect(bench.bench.tally[0]?.value?.value).toBe(29));
		expect(server.asked.at(-1)?.body).toEqual({ changes: { [DRAW]: 29 }, parts: ['draw'] });
	});

	it('forgets a change that goes back to what is kept', async () => {
		bench.set(DRAW, 29);
		bench.set(DRAW, 28);
		expect(bench.dirty).toBe(false);
		expect(bench.isChanged(DRAW)).toBe(false);
		await settled();
	});

	it('asks only the latest of many quick changes', async () => {
		for (let i = 0; i < 20; i++) bench.set(DRAW, 28 + i / 16);
		await vi.waitFor(() => expect(bench.bench.tally[0]?.value?.value).toBe(28 + 19 / 16));
		expect(server.asked.length).toBeLessThan(4);
	});

	it('goes back without asking', async () => {
		bench.set(DRAW, 29);
		await settled();
		const turns = bench.turns;
		bench.revert();
		expect(bench.dirty).toBe(false);
		expect(bench.bench).toBe(bench.keptBench);
		expect(bench.turns).toBe(turns + 1);
	});

	it('keeps with station, reason and the entry it has seen', async () => {
		bench.set(DRAW, 29);
		expect(await bench.keep('draw', 'measured', 'settled')).toBe(true);
		const kept = server.asked.find((a) => a.path.endsWith('/keep'));
		expect(kept?.body).toEqual({
			seq: 0,
			digest: '0'.repeat(32),
			station: 'draw',
			why: 'measured',
			standing: 'settled',
			changes: { [DRAW]: 29 },
			trial: null
		});
		expect(bench.dirty).toBe(false);
		expect(bench.kept.seq).toBe(1);
		expect(bench.value(DRAW)).toBe(29);
	});

	it('does not lose what is changed while keeping', async () => {
		bench.set(DRAW, 29);
		const keeping = bench.keep('draw', '', 'provisional');
		bench.set('bow.marked_weight_lbf', 40);
		expect(await keeping).toBe(true);
		expect(bench.value(DRAW)).toBe(29);
		expect(bench.isChanged(DRAW)).toBe(false);
		expect(bench.changes).toEqual({ 'bow.marked_weight_lbf': 40 });
	});

	it('does not lose what is set back while keeping', async () => {
		bench.set(DRAW, 29);
		const keeping = bench.keep('draw', '', 'provisional');
		bench.set(DRAW, 28);
		expect(await keeping).toBe(true);
		expect(bench.changes).toEqual({ [DRAW]: 28 });
		expect(bench.value(DRAW)).toBe(28);
	});

	it('sets a refusal at its field and loses nothing', async () => {
		server.fail = {
			status: 422,
			body: {
				detail: 'Draw length must be at most 34 in.',
				errors: [{ field: DRAW, reason: 'Draw length must be at most 34 in.' }]
			}
		};
		bench.set(DRAW, 99);
		await vi.waitFor(() => expect(bench.refused[DRAW]).toContain('at most 34 in'));
		expect(bench.fault).toBeNull();
		expect(bench.value(DRAW)).toBe(99);
		expect(bench.bench.tally[0]?.value?.value).toBe(28);
		server.fail = null;
		bench.set(DRAW, 30);
		await vi.waitFor(() => expect(bench.bench.tally[0]?.value?.value).toBe(30));
		expect(bench.refused).toEqual({});
	});

	describe('when someone kept a change meanwhile', () => {
		const conflict = {
			status: 409,
			body: { type: 'urn:x-lyrandis:conflict', detail: 'Someone kept a change.', errors: [] }
		};

		/** Keeping 29 in while another window keeps 27 in; the choice is made as soon as asked. */
		async function keeping(choice: Choice): Promise<boolean> {
			bench.set(DRAW, 29);
			bench.set('archer.thumb_offset_mm', 5);
			server.meanwhile = { [DRAW]: 27 };
			const kept = bench.keep('draw', 'so', 'provisional');
			await vi.waitFor(() => expect(bench.meanwhile).not.toBeNull());
			expect(bench.busy).toBe(true);
			expect(bench.meanwhile!.sent).toEqual({ [DRAW]: 29, 'archer.thumb_offset_mm': 5 });
			expect(bench.meanwhile!.kept.rig.archer.draw_length_in).toBe(27);
			bench.meanwhile!.choose(choice);
			return kept;
		}

		it('keeps mine on top', async () => {
			expect(await keeping('mine')).toBe(true);
			const sent = server.asked.filter((a) => a.path.endsWith('/keep')).map((a) => a.body.seq);
			expect(sent).toEqual([0, 1]);
			expect(bench.kept.rig.archer.draw_length_in).toBe(29);
			expect(bench.dirty).toBe(false);
			expect(bench.meanwhile).toBeNull();
		});

		it('takes theirs', async () => {
			expect(await keeping('theirs')).toBe(false);
			expect(bench.kept.rig.archer.draw_length_in).toBe(27);
			expect(bench.dirty).toBe(false);
			expect(bench.busy).toBe(false);
		});

		it('takes theirs with a trial that waited too', async () => {
			bench.trial = HELD;
			server.meanwhile = { [DRAW]: 27 };
			const kept = bench.keep('draw', '', 'provisional');
			await vi.waitFor(() => expect(bench.meanwhile?.mine?.trial).toBe('hold'));
			bench.meanwhile!.choose('theirs');
			expect(await kept).toBe(false);
			expect(bench.dirty).toBe(false);
		});

		it('leaves mine on top of theirs, not kept', async () => {
			expect(await keeping('look')).toBe(false);
			expect(bench.kept.seq).toBe(1);
			expect(bench.changes).toEqual({ [DRAW]: 29, 'archer.thumb_offset_mm': 5 });
			expect(await bench.keep('draw', '', 'provisional')).toBe(true);
		});

		it('offers no taking back over what was not seen', async () => {
			server.meanwhile = { [DRAW]: 27 };
			const done = bench.undo();
			await vi.waitFor(() => expect(bench.meanwhile).not.toBeNull());
			expect(bench.meanwhile!.mine).toBeNull();
			bench.meanwhile!.choose('theirs');
			expect(await done).toBe(false);
		});

		it('tells what goes wrong while it is asked', async () => {
			bench.set(DRAW, 29);
			server.fail = conflict;
			expect(await bench.keep('draw', '', 'provisional')).toBe(false);
			expect(bench.fault).toContain('Someone kept');
			expect(bench.value(DRAW)).toBe(29);
			expect(bench.busy).toBe(false);
		});
	});

	it('says when the server is gone', async () => {
		vi.stubGlobal('fetch', () => Promise.reject(new TypeError('gone')));
		bench.set(DRAW, 29);
		await vi.waitFor(() => expect(bench.fault).toContain('does not answer'));
		expect(bench.dirty).toBe(true);
	});

	it.each(['undo', 'redo'] as const)('%s sends the entry it has seen', async (deed) => {
		expect(await bench[deed]()).toBe(true);
		expect(server.asked[0]).toEqual({
			path: `/api/rigs/1/${deed}`,
			body: { seq: 0, digest: '0'.repeat(32) }
		});
		expect(bench.kept.seq).toBe(1);
	});

	it('checks a station', async () => {
		await bench.check('crawls', 'settled');
		expect(server.asked[0]?.body).toEqual({
			seq: 0,
			digest: '0'.repeat(32),
			station: 'crawls',
			standing: 'settled',
			why: ''
		});
		expect(bench.state('draw')?.state).toBe('open');
	});
});

describe('trials', () => {
	it('go with the changes they brought, and go when those are thrown away', async () => {
		const server = serve();
		const bench = await RigBench.open(1);
		bench.trial = HELD;
		expect(bench.dirty).toBe(true);
		bench.revert();
		expect(bench.trial).toBeNull();
		bench.trial = HELD;
		bench.set('archer.draw_length_in', 29);
		await bench.keep('draw', '', 'provisional');
		const kept = server.asked.find((a) => a.path.endsWith('/keep'));
		expect(kept?.body).toMatchObject({ trial: HELD, changes: { 'archer.draw_length_in': 29 } });
		expect(bench.dirty).toBe(false);
	});
});
