import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Attempt } from '$lib/bench/attempt.svelte';
import { Outgoing } from '$lib/bench/outgoing.svelte';
import { answerJob, answerUploads } from '$lib/tests/xhr';
import Sending from './Sending.svelte';

const file = new File(['x'], 'rig.json');
afterEach(() => vi.unstubAllGlobals());

describe('a file on its way', () => {
	it('says how far it is, then that it is being read', async () => {
		const outgoing = new Outgoing();
		outgoing.share = 0.4;
		render(Sending, { outgoing, reading: 'checking every entry' });
		expect(screen.getByRole('status')).toHaveTextContent('40 % sent');
		outgoing.share = 1;
		await waitFor(() =>
			expect(screen.getByRole('status')).toHaveTextContent('checking every entry')
		);
	});

	it('is stopped by its button, and says that what is shown is what is kept', async () => {
		const sent = answerUploads({ status: 201, body: {} });
		const outgoing = new Outgoing();
		const attempt = new Attempt();
		render(Sending, { outgoing, reading: 'checking' });
		const going = attempt.run(async () => void (await outgoing.send('import', file)));
		outgoing.stop();
		expect(await going).toBe(false);
		expect(sent[0]?.aborted).toBe(true);
		expect(attempt.fault).toContain('what is kept');
		expect(outgoing.share).toBeNull();
		await fireEvent.click(screen.getByRole('button', { name: 'Stop' })); // nothing goes: nothing happens
	});

	it('leaves no fault behind when it arrives', async () => {
		answerUploads({ status: 202, body: { id: 5 } });
		answerJob([], ['done', { id: 7 }]);
		const outgoing = new Outgoing();
		const attempt = new Attempt();
		attempt.fault = 'earlier';
		let id = 0;
		expect(
			await attempt.run(async () => {
				id = (await outgoing.send<{ id: number }>('import', file)).id;
			})
		).toBe(true);
		expect([id, attempt.fault, outgoing.share]).toEqual([7, null, null]);
	});
});
