import { afterEach, describe, expect, it, vi } from 'vitest';
import { day, today } from './day';

afterEach(() => void vi.useRealTimers());

describe('days', () => {
	it('are written short, long, or with their weekday', () => {
		expect(day('2026-05-02')).toBe('2 May 2026');
		expect(day('2026-11-02', 'long')).toBe('2 November 2026');
		expect(day('2026-05-02', 'weekday')).toMatch(/^Sat,? 2 May 2026$/);
	});
	it('are those of the text, whatever the time in it', () => {
		expect(day('2026-12-31T23:59:59+00:00')).toBe('31 Dec 2026');
	});
	it('are those of the calendar here, also around midnight', () => {
		vi.useFakeTimers({ now: new Date(2026, 0, 3, 0, 5) });
		expect(today()).toBe('2026-01-03');
		vi.setSystemTime(new Date(2026, 10, 30, 23, 55));
		expect(today()).toBe('2026-11-30');
	});
});
