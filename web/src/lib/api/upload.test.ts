import { afterEach, describe, expect, it, vi } from 'vitest';
import { answerUploads } from '$lib/tests/xhr';
import { ApiProblem } from './client';
import { upload } from './upload';

const file = new File(['x'], 'rig.json');
afterEach(() => vi.unstubAllGlobals());

describe('sending a file', () => {
	it('gives the answer, and how far it got', async () => {
		answerUploads({ status: 201, body: { id: 4 } });
		const shares: number[] = [];
		const onProgress = (share: number) => shares.push(share);
		expect(await upload('/api/rigs/import', file, { onProgress })).toEqual({ id: 4 });
		expect(shares).toEqual([0.5]);
	});

	it('names the file and the place of the fault', async () => {
		const body = {
			detail: 'Bow length must be at most 76 in.',
			errors: [{ field: 'base.bow.length_in', reason: '' }]
		};
		answerUploads({ status: 422, body });
		const problem = await upload('/api/rigs/import', file).catch((e: ApiProblem) => e);
		expect(problem).toBeInstanceOf(ApiProblem);
		expect((problem as ApiProblem).message).toBe(
			'rig.json: Bow length must be at most 76 in. (at base.bow.length_in)'
		);
	});

	it('does not say the line twice', async () => {
		const body = { detail: 'Line 3: no force.', errors: [{ field: 'line 3', reason: '' }] };
		answerUploads({ status: 422, body });
		await expect(upload('/api/readings', file)).rejects.toThrow(/^rig.json: Line 3: no force\.$/);
	});

	it('says when the server is gone', async () => {
		answerUploads(null);
		await expect(upload('/api/readings', file)).rejects.toThrow('does not answer');
	});

	it('can be stopped', async () => {
		const sent = answerUploads({ status: 201, body: {} });
		const stop = new AbortController();
		const going = upload('/api/rigs/import', file, { signal: stop.signal });
		stop.abort();
		await expect(going).rejects.toThrow('Stopped.');
		expect(sent[0]).toEqual({ path: '/api/rigs/import', aborted: true });
	});
});
