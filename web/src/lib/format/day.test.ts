import { describe, expect, it } from 'vitest';
import { day } from './day';

describe('days', () => {
	it('are written short, long, or with their weekday', () => {
		expect(day('2026-05-02')).toBe('2 May 2026');
		expect(day('2026-11-02', 'long')).toBe('2 November 2026');
		expect(day('2026-05-02', 'weekday')).toMatch(/^Sat,? 2 May 2026$/);
	});
	it('are those of the text, whatever the time in it', () => {
		expect(day('2026-12-31T23:59:59+00:00')).toBe('31 Dec 2026');
	});
});
