import { afterEach, expect, it, vi } from 'vitest';
import { api, told } from './client';
import { SHAPE, tellOfUpdate } from './shape';

afterEach(() => vi.unstubAllGlobals());

function answers(shape: number | null) {
	const headers: Record<string, string> = {};
	if (shape !== null) headers['X-Lyrandis-Shape'] = String(shape);
	vi.stubGlobal('fetch', () => Promise.resolve(Response.json([], { headers })));
}

it('nothing is read of an answer of another shape, and that is told', async () => {
	const told_of = vi.fn();
	tellOfUpdate(told_of);
	for (const shape of [SHAPE, null]) {
		answers(shape);
		expect(await told(api.GET('/api/rigs'))).toEqual([]);
	}
	expect(told_of).not.toHaveBeenCalled();
	answers(SHAPE + 1);
	await expect(told(api.GET('/api/rigs'))).rejects.toThrow('Lyrandis was updated');
	expect(told_of).toHaveBeenCalled();
});
