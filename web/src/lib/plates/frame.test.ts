import { describe, expect, it } from 'vitest';
import { fit, path } from './frame';

const window = { x0: -2, x1: 8, y0: -5, y1: 5 };
const box = { left: 10, top: 20, width: 200, height: 300 };

describe('a drawing fitted to its box', () => {
	it('keeps one scale both ways and centres', () => {
		const at = fit(window, box);
		expect(at.scale).toBe(20);
		expect(at.x(-2)).toBe(10);
		expect(at.x(8)).toBe(210);
		expect(at.y(5)).toBe(70);
		expect(at.y(-5)).toBe(270);
	});

	it('mirrors for the other hand without moving the box', () => {
		const at = fit(window, box, true);
		expect(at.x(-2)).toBe(210);
		expect(at.x(8)).toBe(10);
		expect(at.y(5)).toBe(70);
	});

	it.each([false, true])('goes back from pixels (mirrored: %s)', (mirrored) => {
		const at = fit(window, box, mirrored);
		expect(at.atX(at.x(3.25))).toBeCloseTo(3.25);
		expect(at.atY(at.y(-1.5))).toBeCloseTo(-1.5);
	});

	it('draws closed and open paths', () => {
		const at = fit(window, box);
		expect(
			path(
				[
					[0, 0],
					[1, 1]
				],
				at
			)
		).toBe('M50 170L70 150');
		expect(path([[0, 0]], at, true)).toMatch(/Z$/);
	});
});
