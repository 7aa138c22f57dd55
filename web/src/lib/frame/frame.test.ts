import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { StationView } from '$lib/api/client';
import { onBench } from '$lib/tests/on-bench';
import Findings from './Findings.svelte';
import KeepBar from './KeepBar.svelte';
import StateMark from './StateMark.svelte';
import Tally from './Tally.svelte';

const goto = vi.hoisted(() => vi.fn(async () => {}));
vi.mock('$app/navigation', () => ({ goto }));
vi.mock('$app/state', () => ({ page: { url: new URL('http://x/rig/1/arrow') } }));
vi.mock('$lib/bench/notice.svelte', () => ({ notify: vi.fn() }));
afterEach(() => vi.unstubAllGlobals());

const said = (text: string) => ({ text, values: {}, words: {} });
const view: StationView = {
	station: 'draw',
	answer: said(''),
	problem: null,
	findings: [
		{
			level: 'stop',
			said: said('The arrow is short.'),
			why: said('It can go through the hand.'),
			told: 'practice',
			action: {
				label: said('Take a longer shaft'),
				changes: { 'arrow.shaft_length_in': 31 },
				station: 'arrow',
				rack_lbf: null
			}
		},
		{
			level: 'fine',
			said: said('All repeats.'),
			why: said('Measured.'),
			told: 'measured',
			action: null
		}
	]
};

describe('findings', () => {
	it('say how serious in a word, why, and whose word it is', async () => {
		await onBench(Findings, { station: view });
		expect(screen.getByText('Stop.')).toBeInTheDocument();
		expect(screen.getByText('Fine.')).toBeInTheDocument();
		expect(screen.getByText('(from practice)')).toBeInTheDocument();
		expect(screen.getByText('(measured)')).toBeInTheDocument();
	});

	it('a cure goes to its station first and then changes what it must', async () => {
		const { bench } = await onBench(Findings, { station: view });
		await fireEvent.click(screen.getByRole('button', { name: 'Take a longer shaft' }));
		expect(goto).toHaveBeenCalledWith('/rig/1/arrow');
		await waitFor(() => expect(bench.changes).toEqual({ 'arrow.shaft_length_in': 31 }));
	});

	it('fold to the two most serious where there is little room', async () => {
		const mind = { ...view.findings[1]!, level: 'mind' as const };
		const findings = [view.findings[0]!, mind, mind, view.findings[1]!];
		await onBench(Findings, { station: { ...view, findings }, brief: true });
		expect(screen.getAllByText('Mind.')).toHaveLength(1);
		expect(screen.queryByText('Fine.')).toBeNull();
		await fireEvent.click(screen.getByRole('button', { name: 'and 1 mind, 1 fine' }));
		expect(screen.getAllByText('Mind.')).toHaveLength(2);
		await fireEvent.click(screen.getByRole('button', { name: 'fewer' }));
		expect(screen.queryByText('Fine.')).toBeNull();
	});

	it('that are all fine need one line only', async () => {
		await onBench(Findings, { station: { ...view, findings: [view.findings[1]!] }, brief: true });
		expect(screen.queryByText('Fine.')).toBeNull();
		expect(screen.getByRole('button', { name: '1 fine' })).toBeInTheDocument();
	});

	it('tell what is due and take a check', async () => {
		const { bench, server } = await onBench(Findings, { station: view });
		bench.states = [
			{ station: 'draw', state: 'due', moved: ['release'], reasons: [said('The release changed.')] }
		];
		expect(await screen.findByText('The release changed.')).toBeInTheDocument();
		await fireEvent.click(screen.getByRole('button', { name: 'Checked, it holds' }));
		await waitFor(() =>
			expect(server.asked[0]).toMatchObject({
				path: '/api/rigs/1/check',
				body: { station: 'draw', standing: 'provisional' }
			})
		);
	});
});

describe('the tally', () => {
	it('tells estimates, settings and what cannot be told apart', async () => {
		await onBench(Tally);
		expect(screen.getByText('cannot be told')).toBeInTheDocument();
		expect(screen.getByText(', estimated by the model')).toBeInTheDocument();
		expect(screen.getByRole('link', { name: /At your draw/ })).toHaveAttribute(
			'href',
			'/rig/1/weight'
		);
		expect(document.querySelectorAll('.about')).toHaveLength(1);
	});

	it('shows the difference to what is kept', async () => {
		const { bench } = await onBench(Tally);
		bench.set('archer.draw_length_in', 27.5);
		expect(await screen.findByText('−1/2')).toBeInTheDocument();
		bench.revert();
		await waitFor(() => expect(screen.queryByText('−1/2')).toBeNull());
	});
});

describe('keeping', () => {
	it('offers to settle an open station, and nothing on a settled one', async () => {
		const { server } = await onBench(KeepBar, { station: 'draw' });
		await fireEvent.click(screen.getByRole('button', { name: 'Settled as it is' }));
		await waitFor(() => expect(server.asked[0]?.body.standing).toBe('settled'));
	});

	it('has nothing to offer on a settled station', async () => {
		await onBench(KeepBar, { station: 'crawls' });
		expect(screen.queryByRole('button')).toBeNull();
	});

	it('says beforehand what keeping makes due', async () => {
		const { bench, server } = await onBench(KeepBar, { station: 'draw' });
		server.states = [
			{ station: 'crawls', state: 'due', moved: ['draw'], reasons: [said('The draw went up.')] }
		];
		bench.set('archer.draw_length_in', 29);
		expect(await screen.findByText(/Keeping it makes Aim due/)).toBeInTheDocument();
	});

	it('says which other rigs a part’s change reaches', async () => {
		const { bench, server } = await onBench(KeepBar, { station: 'draw' });
		server.reaches = [{ rig_id: 2, rig: 'Indoor', part: 'Ilse', due: ['Arrow'] }];
		bench.set('archer.draw_length_in', 29);
		expect(await screen.findByText(/reaches Indoor \(Arrow due\)/)).toBeInTheDocument();
	});

	it('keeps with the reason and the standing', async () => {
		const { bench, server } = await onBench(KeepBar, { station: 'draw' });
		bench.set('archer.draw_length_in', 29);
		const why = await screen.findByLabelText('Reason for keeping this');
		await fireEvent.input(why, { target: { value: 'measured anew' } });
		await fireEvent.click(screen.getByLabelText('settled'));
		await fireEvent.keyDown(why, { key: 'Enter' });
		await waitFor(() => expect(bench.dirty).toBe(false));
		expect(server.asked.find((a) => a.path.endsWith('/keep'))?.body).toMatchObject({
			station: 'draw',
			why: 'measured anew',
			standing: 'settled'
		});
	});

	it('keeps what is pressed while something else is being written, after it', async () => {
		const { bench, server } = await onBench(KeepBar, { station: 'draw' });
		bench.set('archer.draw_length_in', 29);
		const why = await screen.findByLabelText('Reason for keeping this');
		const logged = bench.check('crawls', 'settled');
		expect(bench.busy).toBe(true);
		await fireEvent.keyDown(why, { key: 'Enter' });
		await fireEvent.keyDown(why, { key: 'Enter' });
		await logged;
		await waitFor(() => expect(bench.dirty).toBe(false));
		const written = server.asked.filter((a) => /(keep|check)$/.test(a.path));
		expect(written.map((a) => a.path.split('/').at(-1))).toEqual(['check', 'keep']);
	});

	it('keeps what was changed while an earlier change is being kept, after it', async () => {
		const { bench, server } = await onBench(KeepBar, { station: 'draw' });
		bench.set('archer.draw_length_in', 29);
		const why = await screen.findByLabelText('Reason for keeping this');
		await fireEvent.keyDown(why, { key: 'Enter' });
		await waitFor(() => expect(bench.busy).toBe(true));
		bench.set('string.strands', 16);
		await fireEvent.keyDown(why, { key: 'Enter' });
		await waitFor(() => expect(server.asked.filter((a) => /keep$/.test(a.path))).toHaveLength(2));
		await waitFor(() => expect(bench.dirty).toBe(false));
		const kept = server.asked.filter((a) => /keep$/.test(a.path)).map((a) => a.body);
		expect(kept).toMatchObject([
			{ changes: { 'archer.draw_length_in': 29 } },
			{ changes: { 'string.strands': 16 } }
		]);
	});

	it('does not keep what was refused', async () => {
		const { bench } = await onBench(KeepBar, { station: 'draw' });
		bench.set('archer.draw_length_in', 29);
		bench.refused = { 'archer.draw_length_in': 'too long' };
		expect(await screen.findByRole('button', { name: /Keep this/ })).toBeDisabled();
	});

	it('goes back', async () => {
		const { bench } = await onBench(KeepBar, { station: 'draw' });
		bench.set('archer.draw_length_in', 29);
		await fireEvent.click(await screen.findByRole('button', { name: /Back/ }));
		expect(bench.dirty).toBe(false);
	});
});

describe('the marks of the states', () => {
	it('differ by shape, not by colour alone', () => {
		const shapes = (['open', 'provisional', 'settled', 'due'] as const).map((state) => {
			const { container, unmount } = render(StateMark, { state });
			const drawn = container.innerHTML.replace(/var\(--\w+\)/g, 'colour');
			unmount();
			return drawn;
		});
		expect(new Set(shapes).size).toBe(4);
	});
});
