import { expect, it } from 'vitest';
import { within } from './room';

it('a plate is as high as wished, gives way to its station, and keeps what its picture needs', () => {
	expect(within(null, 400, 240)).toBe(400);
	expect(within(500, 400, 240)).toBe(400);
	expect(within(310.4, 400, 240)).toBe(310);
	expect(within(-80, 400, 240)).toBe(240);
});
