import { afterEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem } from './client';
import { upload } from './upload';

const file = new File(['x'], 'rig.json');

function answer(status: number, body: unknown) {
	vi.stubGlobal('fetch', async () => new Response(JSON.stringify(body), { status }));
}
afterEach(() => vi.unstubAllGlobals());

describe('sending a file', () => {
	it('gives the answer', async () => {
		answer(201, { id: 4 });
		expect(await upload<{ id: number }>('/api/rigs/import', file)).toEqual({ id: 4 });
	});

	it('names the file and the place of the fault', async () => {
		answer(422, {
			detail: 'Bow length must be at most 76 in.',
			errors: [{ field: 'base.bow.length_in', reason: '' }]
		});
		const problem = await upload('/api/rigs/import', file).catch((e: ApiProblem) => e);
		expect(problem).toBeInstanceOf(ApiProblem);
		expect((problem as ApiProblem).message).toBe(
			'rig.json: Bow length must be at most 76 in. (at base.bow.length_in)'
		);
	});

	it('does not say the line twice', async () => {
		answer(422, { detail: 'Line 3: no force.', errors: [{ field: 'line 3', reason: '' }] });
		await expect(upload('/api/readings', file)).rejects.toThrow(/^rig.json: Line 3: no force\.$/);
	});

	it('says when the server is gone', async () => {
		vi.stubGlobal('fetch', () => Promise.reject(new TypeError('gone')));
		await expect(upload('/api/readings', file)).rejects.toThrow('does not answer');
	});
});
