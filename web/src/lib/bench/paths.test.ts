import { describe, expect, it } from 'vitest';
import type { Rig } from '$lib/api/client';
import { same, valueAt } from './paths';

const rig = { name: 'One', bow: { length_in: 68, measured: [[20, 18]] } } as unknown as Rig;

describe('settings by their path', () => {
	it('reads nested and plain ones', () => {
		expect(valueAt(rig, 'bow.length_in')).toBe(68);
		expect(valueAt(rig, 'name')).toBe('One');
		expect(valueAt(rig, 'bow.nothing.at_all')).toBeUndefined();
	});

	it('compares numbers to rounding and lists by content', () => {
		expect(same(0.1 + 0.2, 0.3)).toBe(true);
		expect(same(1, 1.001)).toBe(false);
		expect(same([[20, 18]], [[20, 18]])).toBe(true);
		expect(same(null, undefined)).toBe(false);
		expect(same('a', 'a')).toBe(true);
	});
});
