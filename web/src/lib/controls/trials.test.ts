import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { RigView } from '$lib/api/client';
import { onBench } from '$lib/tests/on-bench';
import BraceTrials from './BraceTrials.svelte';
import HoldTest from './HoldTest.svelte';
import Inspection from './Inspection.svelte';
import TrialList from './TrialList.svelte';

afterEach(() => {
	vi.unstubAllGlobals();
	vi.useRealTimers();
});

type Logged = RigView['trials'][number];
const line = (seq: number, kind: 'hold' | 'weighing', struck = false): Logged => {
	const told = { notes: 'cold', day: '2026-02-01' };
	return {
		seq,
		at: '2026-03-01T10:00:00+00:00',
		day: '2026-03-01',
		station: 'weight',
		struck,
		moved: [],
		digest: 'd'.repeat(32),
		said: { text: `Trial ${seq}.`, values: {}, words: {} },
		trial:
			kind === 'hold'
				? { kind, weight_lbf: 36, seconds: 9, ended: 'steady', ...told }
				: { kind, readings: [[28, 36]], scale: 'typed', ...told }
	};
};

function logged(server: { asked: { path: string; body: Record<string, unknown> }[] }) {
	return server.asked.filter((a) => a.path.endsWith('/keep')).map((a) => a.body);
}

describe('the list of trials', () => {
	it('shows its own kinds, and strikes out and takes in again', async () => {
		const { bench, server } = await onBench(TrialList, { kinds: ['hold'], empty: 'None yet.' });
		expect(screen.getByText('None yet.')).toBeInTheDocument();
		server.trials = [line(3, 'hold'), line(2, 'weighing'), line(1, 'hold', true)];
		await bench.check('draw', 'settled');
		await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(2));
		expect(screen.queryByText('Put right')).toBeNull();
		await fireEvent.click(screen.getByText('Strike out'));
		await waitFor(() =>
			expect(server.asked.find((a) => a.path.endsWith('/strike'))?.body).toMatchObject({
				about: 3,
				out: true
			})
		);
		await waitFor(() => expect(bench.busy).toBe(false));
		await fireEvent.click(screen.getByText('Take in again'));
		await waitFor(() =>
			expect(server.asked.filter((a) => a.path.endsWith('/strike'))[1]?.body).toMatchObject({
				about: 1,
				out: false
			})
		);
	});
});

describe('the hold test', () => {
	it('logs typed seconds at the rig’s own weight, and leaves changes not kept alone', async () => {
		const { bench, server } = await onBench(HoldTest);
		bench.set('archer.draw_length_in', 29);
		await fireEvent.input(screen.getByLabelText('Seconds held'), { target: { value: '9.5' } });
		await fireEvent.change(screen.getByLabelText('How it ended'), { target: { value: 'pain' } });
		await fireEvent.click(screen.getByText('Log this hold'));
		await waitFor(() => expect(logged(server)).toHaveLength(1));
		expect(logged(server)[0]).toMatchObject({
			station: 'weight',
			about: null,
			changes: {},
			trial: { kind: 'hold', weight_lbf: 36.5, seconds: 9.5, ended: 'pain' }
		});
		await waitFor(() => expect(bench.changes['archer.draw_length_in']).toBe(29));
	});

	it('leaves alone what is typed while the last one is on its way', async () => {
		const { server } = await onBench(HoldTest);
		const seconds = screen.getByLabelText('Seconds held') as HTMLInputElement;
		await fireEvent.input(seconds, { target: { value: '9.5' } });
		await fireEvent.click(screen.getByText('Log this hold'));
		await fireEvent.input(seconds, { target: { value: '11' } });
		await waitFor(() => expect(logged(server)).toHaveLength(1));
		await waitFor(() => expect(screen.getByText('Log this hold')).toBeEnabled());
		expect(seconds.value).toBe('11');
	});

	it('times with the clock', async () => {
		await onBench(HoldTest);
		let now = 1000;
		vi.spyOn(performance, 'now').mockImplementation(() => now);
		await fireEvent.click(screen.getByText('Start the clock'));
		now = 12500;
		await fireEvent.click(screen.getByText(/^Stop at/));
		expect((screen.getByLabelText('Seconds held') as HTMLInputElement).value).toBe('11.5');
		vi.restoreAllMocks();
	});

	it('keeps what was typed where it cannot be read', async () => {
		const { server } = await onBench(HoldTest);
		await fireEvent.input(screen.getByLabelText('Seconds held'), { target: { value: 'long' } });
		await fireEvent.click(screen.getByText('Log this hold'));
		expect(await screen.findByText('“long” is not a measurement.')).toBeInTheDocument();
		expect((screen.getByLabelText('Seconds held') as HTMLInputElement).value).toBe('long');
		expect(logged(server)).toHaveLength(0);
	});

	it('puts an earlier one right', async () => {
		const { bench, server } = await onBench(HoldTest);
		server.trials = [line(4, 'hold')];
		await bench.check('draw', 'settled');
		await fireEvent.click(await screen.findByText('Put right'));
		expect((screen.getByLabelText('Notes on the hold') as HTMLInputElement).value).toBe('cold');
		await fireEvent.input(screen.getByLabelText('Seconds held'), { target: { value: '12' } });
		await fireEvent.click(screen.getByText('Put it right'));
		await waitFor(() => expect(logged(server)).toHaveLength(1));
		// What the form does not ask, the day it was made, stays as it was.
		const right = { seconds: 12, day: '2026-02-01' };
		expect(logged(server)[0]).toMatchObject({ about: 4, trial: right });
	});
});

describe('looking the bow over', () => {
	it('logs what was looked at and what was found', async () => {
		const { server } = await onBench(Inspection);
		expect(screen.getByText('Log this look')).toBeDisabled();
		await fireEvent.click(screen.getAllByLabelText('found')[0]!);
		await fireEvent.click(screen.getByText('Nothing found in the rest'));
		await fireEvent.click(screen.getByText('Log this look'));
		await waitFor(() => expect(logged(server)).toHaveLength(1));
		expect(logged(server)[0]).toMatchObject({
			trial: { kind: 'inspection', looked: ['cracks', 'string'], found: ['cracks'] }
		});
		await waitFor(() => expect(screen.getByText('Log this look')).toBeDisabled());
	});
});

describe('listening', () => {
	it('logs typed levels with the brace as it is', async () => {
		const { server } = await onBench(BraceTrials);
		await fireEvent.input(screen.getByLabelText('Brace listened to'), { target: { value: '8' } });
		await fireEvent.input(screen.getByLabelText('Levels of the shots, dB'), {
			target: { value: '61 62;63' }
		});
		await fireEvent.click(screen.getByLabelText('Feel 4 of 5'));
		await fireEvent.click(screen.getByText('Log this trial'));
		await waitFor(() => expect(logged(server)).toHaveLength(1));
		expect(logged(server)[0]).toMatchObject({
			station: 'brace',
			trial: { kind: 'brace', brace_height_in: 8, levels_db: [61, 62, 63], feel: 4, arrows: 3 }
		});
		await waitFor(() =>
			expect((screen.getByLabelText('Levels of the shots, dB') as HTMLInputElement).value).toBe('')
		);
	});

	it('puts a trial right without losing who heard it, its day and its reference', async () => {
		const { bench, server } = await onBench(BraceTrials);
		const trial: Extract<Logged['trial'], { kind: 'brace' }> = {
			kind: 'brace',
			brace_height_in: 10,
			reference: 'back',
			twists: null,
			arrows: 3,
			levels_db: [61, 62],
			heard_by: 'recording',
			feel: 2,
			group_cm: null,
			notes: '',
			day: '2026-02-01'
		};
		server.trials = [{ ...line(7, 'hold'), trial }];
		await bench.check('draw', 'settled');
		await fireEvent.click(await screen.findByText('Put right'));
		await fireEvent.click(screen.getByLabelText('Feel 4 of 5'));
		await fireEvent.click(screen.getByText('Put it right'));
		await waitFor(() => expect(logged(server)).toHaveLength(1));
		expect(logged(server)[0]).toMatchObject({ about: 7, trial: { ...trial, feel: 4 } });
	});

	it('keeps everything typed where one part cannot be read', async () => {
		const { server } = await onBench(BraceTrials);
		await fireEvent.input(screen.getByLabelText('Brace listened to'), { target: { value: '8' } });
		await fireEvent.input(screen.getByLabelText('Levels of the shots, dB'), {
			target: { value: 'loud' }
		});
		await fireEvent.click(screen.getByText('Log this trial'));
		expect(await screen.findByText('“loud” is not a measurement.')).toBeInTheDocument();
		expect((screen.getByLabelText('Brace listened to') as HTMLInputElement).value).toBe('8');
		expect(logged(server)).toHaveLength(0);
	});
});
