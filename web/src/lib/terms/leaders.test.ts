import { describe, expect, it } from 'vitest';
import { leaders, type Word } from './leaders';

const word = (text: string, x: number, y = 0): Word => ({ id: text, text, x, y });

describe('the words of a drawing', () => {
	it('stand beside one another in the order of their parts, within the picture', () => {
		const words = ['limb nock', 'tip', 'loop', 'limb'].map((text, i) => word(text, 300 - i, 10));
		const placed = leaders(words, 0, 400, 50)!;
		expect(placed.map((p) => p.row)).toEqual(Array(4).fill('above'));
		expect(placed.map((p) => p.text)).toEqual(['limb', 'loop', 'tip', 'limb nock']);
		for (const [i, p] of placed.entries()) {
			const half = (p.text.length * 6.6) / 2;
			expect(p.at - half).toBeGreaterThanOrEqual(0);
			expect(p.at + half).toBeLessThanOrEqual(400);
			const next = placed[i + 1];
			if (next) expect(next.at - (next.text.length * 6.6) / 2).toBeGreaterThan(p.at + half);
		}
	});

	it('go to the row nearer to their part, while it has room', () => {
		const both = leaders([word('string', 50, 10), word('riser', 50, 90)], 0, 400, 50)!;
		expect(both.map((p) => [p.text, p.row])).toEqual([
			['string', 'above'],
			['riser', 'below']
		]);
		const many = ['brace height', 'nock point', 'serving'].map((t) => word(t, 20, 10));
		expect(leaders(many, 0, 160, 50)!.map((p) => p.row)).toContain('below');
	});

	it('are not led where there is no room for them', () => {
		const many = Array.from({ length: 12 }, (_, i) => word(`string length ${i}`, i * 20));
		expect(leaders(many, 0, 358, 50)).toBeNull();
	});
});
