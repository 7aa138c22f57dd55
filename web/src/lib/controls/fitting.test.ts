import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { onBench } from '$lib/tests/on-bench';
import HearLevels from './HearLevels.svelte';
import LimbsCheck from './LimbsCheck.svelte';
import LineUp from './LineUp.svelte';
import MeasureField from './MeasureField.svelte';
import Microphone from './Microphone.svelte';
import ReachTable from './ReachTable.svelte';
import Settling from './Settling.svelte';
import StepUpPlan from './StepUpPlan.svelte';
import TwistCounter from './TwistCounter.svelte';

afterEach(() => vi.unstubAllGlobals());

const offer = (length_in: number) => ({
	length_in,
	riser_in: null,
	limb_class: null,
	string_angle_deg: 125,
	stack_reserve_in: 1.5,
	score: 8,
	reasons: ['smooth at your draw'],
	speed_fps: 180,
	last_inch_lbf: 2,
	strung_in: length_in - 4
});

describe('bows side by side', () => {
	const bow_length = { candidates: [60, 62, 64, 66].map(offer), reach: [] };
	const boxes = () => screen.getAllByRole('checkbox') as HTMLInputElement[];
	const picked = () => boxes().map((b) => b.checked);

	it('begins with the first two, takes three, and a fourth drives the oldest out', async () => {
		const { server } = await onBench(LineUp, undefined, {
			bench: { bow_length },
			answers: { '/line-up': [] }
		});
		expect(picked()).toEqual([true, true, false, false]);
		await fireEvent.click(boxes()[2]!);
		expect(picked()).toEqual([true, true, true, false]);
		await fireEvent.click(boxes()[3]!);
		expect(picked()).toEqual([false, true, true, true]);
		await waitFor(() => {
			const last = server.asked.filter((a) => a.path.endsWith('/line-up')).pop();
			const picks = last?.body.picks as { length_in: number }[];
			expect(picks.map((p) => p.length_in)).toEqual([62, 64, 66]);
		});
	});

	it('tries one on the bench', async () => {
		const { bench } = await onBench(LineUp, undefined, {
			bench: { bow_length },
			answers: { '/line-up': [] }
		});
		await fireEvent.click(screen.getAllByText('Try')[1]!);
		expect(bench.changes['bow.length_in']).toBe(62);
	});
});

describe('the bow at hand', () => {
	it('marks your own draw and gives no number past its end', async () => {
		const row = (draw_in: number, more_lbf: number | null, region: string) => ({
			draw_in,
			weight_lbf: more_lbf == null ? null : 36 + more_lbf,
			more_lbf,
			slope_lbf_per_in: more_lbf == null ? null : 2,
			angle_deg: more_lbf == null ? null : 120,
			region
		});
		const reach = [row(27, -2, 'comfortable'), row(28, 0, 'stacks'), row(29, null, 'past_end')];
		await onBench(ReachTable, undefined, { bench: { bow_length: { candidates: [], reach } } });
		expect(screen.getByText(/, yours/)).toBeInTheDocument();
		expect(screen.getByText('not computed past its end')).toBeInTheDocument();
		expect(screen.getByText('past what it allows: never')).toBeInTheDocument();
	});
});

describe('the plan', () => {
	const plan = (more: object) => ({
		plan: { steps: [], held_on: null, due: false, problem: null, ...more }
	});

	it('lists its steps, and offers the calendar only for what is kept', async () => {
		const step = { number: 1, day: '2026-05-02', weight_lbf: 38, earned_by: '3 steady holds' };
		const { bench } = await onBench(StepUpPlan, undefined, { bench: plan({ steps: [step] }) });
		expect(screen.getByText(/2 May 2026/)).toBeInTheDocument();
		expect(screen.getByText('Days for your calendar')).toBeInTheDocument();
		bench.set('step_up.weeks', 9);
		await waitFor(() => expect(screen.queryByText('Days for your calendar')).toBeNull());
	});

	it('says when what is drawn now is held, and that a step may be taken', async () => {
		const step = {
			number: 1,
			day: '2026-05-02',
			weight_lbf: 38,
			earned_by: '3 steady holds',
			earned: true
		};
		await onBench(StepUpPlan, undefined, {
			bench: plan({ steps: [step], held_on: '2026-03-01', due: true })
		});
		expect(screen.getByText('Now')).toBeInTheDocument();
		expect(screen.getByText('earned 1 Mar 2026 by 3 steady holds')).toBeInTheDocument();
	});

	it('says why there is none', async () => {
		await onBench(StepUpPlan, undefined, {
			bench: plan({ problem: { text: 'Only with a coach.', values: {}, words: {} } })
		});
		expect(screen.getByRole('alert')).toHaveTextContent('Only with a coach.');
	});

	it('invites to set a goal', async () => {
		await onBench(StepUpPlan, undefined, { bench: plan({}) });
		expect(screen.getByText(/Set a goal and the steps stand here/)).toBeInTheDocument();
	});
});

describe('limbs', () => {
	it('are not asked of a one-piece bow', async () => {
		await onBench(LimbsCheck);
		expect(screen.getByText(/A one-piece bow has no limbs to change/)).toBeInTheDocument();
	});
});

describe('the twist counter', () => {
	const brace = { brace_in: 8.25 };
	const answer = {
		turns: 3.5,
		turns_plus_minus: 0.5,
		string_change_mm: -2,
		brace_per_turn_mm: 0.9,
		factor: 1.1,
		factor_plus_minus: 0.1,
		order_length_in: null,
		findings: []
	};
	const seen = [{ twists: 20, brace_in: 8 }];

	it('asks for the count first', async () => {
		await onBench(TwistCounter, undefined, { bench: { brace } });
		expect(screen.getByText(/Count the turns in the string/)).toBeInTheDocument();
	});

	it('asks with what this string has shown, and says the turns', async () => {
		const { bench, server } = await onBench(TwistCounter, undefined, {
			bench: { brace, listening: null, turns_seen: seen },
			answers: { '/twists': answer }
		});
		bench.set('string.twists', 24);
		const field = await screen.findByLabelText('Brace height wanted');
		await fireEvent.input(field, { target: { value: '8.5' } });
		expect(await screen.findByText(/^Add/)).toHaveTextContent('Add 3.50 ± 0.50 turns');
		const asked = server.asked.filter((a) => a.path.endsWith('/twists')).pop()!;
		expect(asked.body).toMatchObject({ twists_now: 24, brace_wanted_in: 8.5, observed: seen });
		await fireEvent.input(field, { target: { value: 'high' } });
		expect(await screen.findByText('“high” is not a measurement.')).toBeInTheDocument();
		expect((field as HTMLInputElement).value).toBe('high');
	});
});

describe('settling', () => {
	it('starts the clock with a new string', async () => {
		const { server } = await onBench(Settling, undefined, {
			bench: { brace: { brace_in: 8.25 }, settling: null }
		});
		// What stands in the field as a guess was not measured.
		expect(screen.getByText('Braced just now')).toBeDisabled();
		await fireEvent.input(screen.getByLabelText('Brace of the new string'), {
			target: { value: '8.5' }
		});
		await fireEvent.click(screen.getByText('Braced just now'));
		await waitFor(() => expect(server.asked.some((a) => a.path.endsWith('/keep'))).toBe(true));
		const kept = server.asked.find((a) => a.path.endsWith('/keep'))!;
		expect(kept.body.trial).toMatchObject({ kind: 'settling', hours: 0, brace_height_in: 8.5 });
	});
});

describe('hearing levels', () => {
	const query = { check: 'loose', done: 'no' };

	it('takes typed levels, and keeps nonsense in its field', async () => {
		await onBench(HearLevels, { label: 'Before', query, value: null });
		const field = screen.getByLabelText('Before, levels in dB') as HTMLInputElement;
		await fireEvent.input(field, { target: { value: '61 ???' } });
		expect(await screen.findByRole('alert')).toHaveTextContent('“???” is not a measurement.');
		expect(field.value).toBe('61 ???');
		await fireEvent.input(field, { target: { value: '61 62' } });
		await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
	});
});

describe('the microphone', () => {
	it('says what to do instead where it is not allowed', async () => {
		const refuse = () => Promise.reject(new Error('NotAllowedError'));
		vi.stubGlobal('navigator', { mediaDevices: { getUserMedia: refuse } });
		const onproblem = vi.fn();
		render(Microphone, { props: { onfile: vi.fn(), onproblem } });
		await fireEvent.click(screen.getByText('Microphone'));
		await waitFor(() =>
			expect(onproblem).toHaveBeenCalledWith(expect.stringContaining('type levels'))
		);
	});

	it('is not offered where the browser has none', () => {
		vi.stubGlobal('navigator', {});
		render(Microphone, { props: { onfile: vi.fn(), onproblem: vi.fn() } });
		expect(screen.queryByText('Microphone')).toBeNull();
	});
});

describe('a field that cannot be read', () => {
	it('holds keeping up, and no longer once it is gone', async () => {
		const { bench, unmount } = await onBench(MeasureField, { path: 'archer.draw_length_in' });
		await fireEvent.input(screen.getByLabelText('Draw length'), { target: { value: 'far' } });
		await waitFor(() => expect(bench.unread['archer.draw_length_in']).toContain('far'));
		unmount();
		expect(bench.unread).toEqual({});
	});
});
