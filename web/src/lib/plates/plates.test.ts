import type { Schemas } from '$lib/api/client';
import { fireEvent, render, screen, within } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { reference } from '$lib/bench/reference.svelte';
import { catalog } from '$lib/tests/catalog';
import { onBench } from '$lib/tests/on-bench';
import DrawHistoryPlate from './DrawHistoryPlate.svelte';
import InspectionPlate from './InspectionPlate.svelte';
import MeasuringPlate from './MeasuringPlate.svelte';
import QuietPlate from './QuietPlate.svelte';
import SettlingPlate from './SettlingPlate.svelte';
import SoundPlate from './SoundPlate.svelte';
import SweepPlate from './SweepPlate.svelte';

beforeEach(() => {
	reference.catalog = catalog;
	reference.units = {};
});
afterEach(() => vi.unstubAllGlobals());

/** The cells of the plate's own table, row by row. */
function table(): string[][] {
	return screen
		.getAllByRole('row', { hidden: true })
		.map((row) => within(row).queryAllByRole('cell', { hidden: true }))
		.filter((cells) => cells.length > 0)
		.map((cells) => cells.map((cell) => cell.textContent ?? ''));
}

const heard = (seq: number, brace_in: number, mean_db: number | null) => ({
	seq,
	day: '2026-03-01',
	by: 'meter',
	brace_in,
	mean_db,
	offset_db: seq === 3 ? null : 0,
	levels_db: mean_db == null ? [] : [mean_db - 1, mean_db + 1],
	feel: 3
});
const curve = {
	brace_in: [8, 8.5, 9],
	mean_db: [62, 60, 61],
	sd_db: [0.5, 0.4, 0.6],
	best_in: 8.5,
	interval_in: [8.25, 8.75],
	next_in: 9,
	verdict: null,
	sure: 0.5
};
const listening = {
	day: '2026-03-01',
	heard: [heard(1, 8, 62), heard(2, 8.5, null)],
	apart: [{ ...heard(3, 8.75, 70), day: '2026-02-20' }],
	curve,
	low_in: 8,
	high_in: 9
};

describe('the sweep', () => {
	it('invites where nothing was heard', async () => {
		await onBench(SweepPlate, undefined, { bench: { listening: null } });
		expect(screen.getByText(/Shoot a few at one brace height/)).toBeInTheDocument();
	});

	it('shows each trial’s shots, the quietest and the next', async () => {
		const { container } = await onBench(SweepPlate, undefined, {
			bench: { listening }
		});
		expect(container.querySelectorAll('circle')).toHaveLength(2);
		expect(container.textContent).toContain('quietest about');
		expect(container.textContent).toContain('next 9 in');
		expect(table()[0]).toEqual(['2026-03-01', 'meter', '8 in', '62.0', '62.0', '2', '3']);
		expect(table()[1]?.[3]).toBe('');
		expect(table()[2]?.slice(3, 5)).toEqual(['70.0', 'apart']);
	});

	it('names no next once it is done', async () => {
		const over = { ...listening, curve: { ...curve, next_in: null, verdict: 'found' as const } };
		const { container } = await onBench(SweepPlate, undefined, {
			bench: { listening: over }
		});
		expect(container.textContent).not.toContain('next 9 in');
	});
});

describe('the quiet checks', () => {
	const quiet = {
		next: 'string',
		done: [
			{
				seq: 1,
				check: 'loose',
				before_db: [62, 63],
				after_db: [59, 60],
				before_mean_db: 62.5,
				after_mean_db: 59.5,
				difference_db: { value: -3, plus_minus: 1, source: 'measured' },
				verdict: 'quieter'
			}
		]
	};

	it('stand in their order with before, after and what the change made', async () => {
		await onBench(QuietPlate, undefined, { bench: { quiet } });
		expect(table()).toEqual([
			['Loose parts', '62.5 dB', '59.5 dB', '−3.0 ± 1.0 dB'],
			['The string', '', '', 'next']
		]);
	});

	it('the latest of two tries counts', async () => {
		const again = { ...quiet.done[0], seq: 2, after_mean_db: 58 };
		await onBench(QuietPlate, undefined, {
			bench: { quiet: { ...quiet, done: [quiet.done[0], again] } }
		});
		expect(table()[0]?.[2]).toBe('58.0 dB');
	});
});

describe('a recording', () => {
	type Event = Schemas['Sound']['events'][number];
	const event = (at_s: number, kind: Event['kind']): Event => ({
		at_s,
		kind,
		lag_s: null,
		level_db: -24,
		exposure_db: -30,
		decay_ms: 90,
		centroid_hz: null,
		tone_hz: null,
		tone_above_db: null,
		usable: true,
		spoilt: null
	});
	const sound: Schemas['Sound'] = {
		events: [event(0.6, 'click'), event(1, 'shot'), event(1.4, 'arrival'), event(5, 'shot')],
		duration_s: 8,
		lag_s: 0.4,
		noise_db: -54,
		outline_db: [-54, -20, -50],
		slice_s: 2.6,
		tone: null,
		ask: null
	};

	it('offers every sound while one’s own are marked, and adds none then', async () => {
		const [onpress, onadd] = [vi.fn(), vi.fn()];
		render(SoundPlate, { props: { sound, out: [], marking: true, chosen: 1, onpress, onadd } });
		const sounds = screen.getAllByRole('button', { name: /^Sound at/ });
		expect(sounds.map((s) => s.getAttribute('aria-pressed'))).toEqual([
			'false',
			'true',
			'false',
			'false'
		]);
		await fireEvent.keyDown(sounds[2]!, { key: ' ' });
		expect(onpress.mock.calls).toEqual([[1.4]]);
		// One stop for the Tab key, the arrows go on from there and not beyond the ends.
		sounds[2]!.focus();
		await fireEvent.keyDown(sounds[2]!, { key: 'ArrowRight' });
		expect(document.activeElement).toBe(sounds[3]);
		await fireEvent.keyDown(sounds[3]!, { key: 'ArrowRight' });
		expect(document.activeElement).toBe(sounds[3]);
		expect(sounds.map((s) => s.getAttribute('tabindex'))).toEqual(['-1', '-1', '-1', '0']);
		await fireEvent.click(screen.getByRole('presentation', { hidden: true }));
		expect(onadd).not.toHaveBeenCalled();
	});

	it('says of a shot that is not used why', () => {
		const blown = { ...event(3, 'shot'), usable: false, spoilt: 'wind' as const };
		const told = { ...sound, events: [blown] };
		render(SoundPlate, { props: { sound: told, out: [], onpress: vi.fn(), onadd: vi.fn() } });
		expect(table()[0]?.[1]).toBe('shot, not used: blown over');
	});

	it('lets a shot be taken out by key and by press, and only shots', async () => {
		const onpress = vi.fn();
		render(SoundPlate, { props: { sound, out: [5], onpress, onadd: vi.fn() } });
		const shots = screen.getAllByRole('button', { name: /^Shot at/ });
		expect(shots.map((s) => s.getAttribute('aria-pressed'))).toEqual(['true', 'false']);
		await fireEvent.keyDown(shots[0]!, { key: 'Enter' });
		await fireEvent.keyDown(shots[0]!, { key: 'a' });
		await fireEvent.click(shots[1]!);
		expect(onpress.mock.calls).toEqual([[1], [5]]);
		expect(table().map((row) => row[1])).toEqual(['click', 'shot', 'arrival', 'shot, taken out']);
	});

	it('adds a shot where it is pressed', async () => {
		const onadd = vi.fn();
		render(SoundPlate, { props: { sound, out: [], onpress: vi.fn(), onadd } });
		await fireEvent.click(screen.getByRole('presentation', { hidden: true }));
		expect(onadd).toHaveBeenCalledOnce();
	});
});

describe('a settling string', () => {
	it('shows its readings and where it comes to rest', () => {
		const settling: Schemas['SettlingView'] = {
			final_brace_in: { value: 8, plus_minus: 0.125, source: 'measured' },
			band_in: [7.8, 8.1],
			sinks_in: { value: 0.1, plus_minus: 0.1, source: 'measured' },
			settled_after_h: 72,
			next_look_h: 42,
			explained: true,
			settled: false,
			sure: 0.4,
			hours: [0, 24, 48],
			brace_in: [8.5, 8.1, 8],
			low_in: [8.4, 8, 7.8],
			high_in: [8.6, 8.2, 8.1],
			readings: [
				[0, 8.5],
				[24, 8.125]
			],
			hours_now: 25
		};
		const { container } = render(SettlingPlate, { props: { settling } });
		expect(container.textContent).toContain('after a fortnight 8');
		expect(table()).toEqual([
			['0.0 h', '8 1/2 in'],
			['24.0 h', '8 1/8 in']
		]);
	});
});

describe('draws over time', () => {
	const point = (seq: number, day: string, draw_in: number, method: string) => ({
		seq,
		day,
		draw_in,
		plus_minus_in: 0.25,
		mean_sd_in: 0.1,
		method
	});

	it('waits for the first', async () => {
		await onBench(DrawHistoryPlate, undefined, { bench: { draws: { points: [] } } });
		expect(screen.getByText(/No draw was measured here yet/)).toBeInTheDocument();
	});

	it('fills what was measured and leaves guesses hollow', async () => {
		const points = [
			point(1, '2026-01-01', 27, 'arm_span'),
			point(2, '2026-06-01', 28, 'marked_arrow')
		];
		const { container } = await onBench(DrawHistoryPlate, undefined, {
			bench: { draws: { points } }
		});
		const fills = [...container.querySelectorAll('circle')].map((c) => c.getAttribute('fill'));
		expect(fills).toEqual(['var(--paper)', 'var(--heather)']);
		expect(table()[0]).toEqual(['2026-01-01', '27 in', '1/4 in', 'arm span']);
	});
});

describe('where the tape goes', () => {
	it.each([
		['tape', 'Tape: fingertip to the front of the shoulder', '28 in'],
		['arm_span', 'both arms out', '70 in ÷ 2.5 = 28 in'],
		['marked_arrow', 'marked where it passes the bow', 'read 28 in']
	] as const)('is drawn for %s with its reading', async (method, title, label) => {
		const reading = method === 'arm_span' ? 70 : 28;
		const { container } = await onBench(MeasuringPlate, {
			method,
			convention: 'trade' as const,
			reading,
			comes: 28
		});
		expect(screen.getByRole('img').getAttribute('aria-label')).toContain(title);
		expect(container.textContent).toContain(label);
	});

	it('names what the convention measures to', async () => {
		const props = { method: 'marked_arrow', convention: 'pivot', reading: null } as const;
		const { container } = await onBench(MeasuringPlate, props);
		expect(container.textContent).toContain('to the deepest part of the grip');
	});
});

describe('looking a bow over', () => {
	it('says for each place what was found', () => {
		const places = catalog.inspection;
		render(InspectionPlate, { props: { places, looked: ['cracks', 'string'], found: ['cracks'] } });
		expect(table().map((row) => row[3])).toEqual(['found', 'nothing']);
		expect(screen.getByText('looked, nothing')).toBeInTheDocument();
	});
});
