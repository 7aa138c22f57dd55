import { describe, expect, it, vi } from 'vitest';
import { Answer } from './answer.svelte';
import { latest } from './latest';

describe('an answer', () => {
	it('is shown with its own question only', () => {
		let who = 'Ada';
		const answer = new Answer<{ who: string }, string>(() => ({ who }));
		expect(answer.now).toBeNull();
		answer.take({ who: 'Ada' }, 'a light bow');
		expect(answer.now).toBe('a light bow');
		who = 'Bo';
		const other = new Answer<{ who: string }, string>(() => ({ who }));
		other.take({ who: 'Ada' }, 'a light bow');
		expect(other.now).toBeNull();
	});

	it('is not current where another question came meanwhile', async () => {
		const taken: number[] = [];
		let answer: () => void = () => {};
		const ask = latest<number>(async (n, current) => {
			await new Promise<void>((done) => (answer = done));
			if (current()) taken.push(n);
		});
		ask(1);
		ask(2);
		answer();
		await vi.waitFor(() => expect(taken).toEqual([]));
		await new Promise((done) => setTimeout(done));
		answer();
		await vi.waitFor(() => expect(taken).toEqual([2]));
	});
});
