import { afterEach, describe, expect, it, vi } from 'vitest';
import { api } from './client';
import { writes } from './once';

afterEach(() => vi.unstubAllGlobals());

/** The keys of the requests that went out, each answered with the next status. */
function keysOf(statuses: number[]): string[] {
	const keys: string[] = [];
	vi.stubGlobal('fetch', (request: Request) => {
		keys.push(request.headers.get('idempotency-key') ?? '');
		const status = statuses.shift() ?? 201;
		if (status === 0) return Promise.reject(new TypeError('no answer'));
		return Promise.resolve(Response.json({}, { status }));
	});
	return keys;
}

const make = (name: string) => api.POST('/api/rigs', { body: { name } as never });

describe('the key of a request', () => {
	it('stays where there was no answer, and is another after one', async () => {
		const keys = keysOf([0, 503, 500, 201, 201]);
		await make('Own').catch(() => undefined);
		await make('Own');
		await make('Own');
		await make('Own');
		await make('Own');
		expect(keys[0]).toMatch(/^[0-9a-f]{32}$/);
		expect(keys.slice(0, 4)).toEqual([keys[0], keys[0], keys[0], keys[0]]);
		expect(keys[4]).not.toBe(keys[0]);
	});

	it('is one for two presses at once, and another for another request', async () => {
		const keys = keysOf([]);
		await Promise.all([make('Own'), make('Own'), make('Other')]);
		expect(keys[0]).toBe(keys[1]);
		expect(keys[2]).not.toBe(keys[0]);
	});

	it('is not asked of who only reads, asks, or begins work', async () => {
		const keys = keysOf([200, 202, 200]);
		await api.GET('/api/rigs');
		await api.POST('/api/jobs/fit', { body: {} as never });
		await api.POST('/api/rigs/{id}/preview', { params: { path: { id: 1 } }, body: {} as never });
		expect(keys).toEqual(['', '', '']);
	});

	it.each([
		'/api/rigs',
		'/api/rigs/first',
		'/api/rigs/12/keep',
		'/api/rigs/1/put-on',
		'/api/parts',
		`/api/parts/${'a'.repeat(32)}/undo`,
		'/api/parts/take-out',
		'/api/jobs/import'
	])('is sent to %s', (path) => expect(writes(path)).toBe(true));
});
