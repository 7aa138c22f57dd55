import { flushSync } from 'svelte';
import { describe, expect, it, vi } from 'vitest';
import { Attempt } from './attempt.svelte';
import { One, working } from './one.svelte';

function slow() {
	let done: () => void = () => {};
	const deed = vi.fn(() => new Promise<void>((go) => (done = go)));
	return { deed, done: () => done() };
}

describe('one at a time', () => {
	it('does nothing at a second press in the same tick, and says that it is at work', async () => {
		const one = new One();
		const { deed, done } = slow();
		const press = new Event('submit', { cancelable: true });
		const on = one.on(deed);
		on(press);
		on(new Event('submit'));
		expect(press.defaultPrevented).toBe(true);
		expect(deed).toHaveBeenCalledTimes(1);
		expect([one.busy, working.count]).toEqual([true, 1]);
		done();
		await vi.waitFor(() => expect(one.busy).toBe(false));
		expect(working.count).toBe(0);
		on(new Event('submit'));
		expect(deed).toHaveBeenCalledTimes(2);
		done();
	});

	it('is free again after a fault', async () => {
		const attempt = new Attempt();
		const fails = () => Promise.reject(new Error('no room'));
		expect(await attempt.run(fails)).toBe(false);
		expect([attempt.fault, attempt.busy]).toEqual(['no room', false]);
		expect(await attempt.run(() => Promise.resolve())).toBe(true);
		expect(attempt.fault).toBeNull();
	});

	it('does not start itself anew where it is begun by an effect', async () => {
		const attempt = new Attempt();
		const deed = vi.fn(() => Promise.resolve());
		const stop = $effect.root(() => {
			$effect(() => void attempt.run(deed));
		});
		flushSync();
		await Promise.resolve();
		flushSync();
		await Promise.resolve();
		flushSync();
		expect(deed).toHaveBeenCalledTimes(1);
		stop();
	});
});
