import { describe, expect, it, vi } from 'vitest';
import { latest } from './latest';

describe('asking one at a time', () => {
	it('skips what was overtaken while a question was out', async () => {
		const asked: number[] = [];
		let answer: () => void = () => {};
		const ask = latest<number>((n) => {
			asked.push(n);
			return new Promise((done) => (answer = done));
		});
		ask(1);
		ask(2);
		ask(3);
		expect(asked).toEqual([1]);
		answer();
		await vi.waitFor(() => expect(asked).toEqual([1, 3]));
		answer();
		await Promise.resolve();
		ask(4);
		await vi.waitFor(() => expect(asked).toEqual([1, 3, 4]));
	});
});
