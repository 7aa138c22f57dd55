import { afterEach, describe, expect, it, vi } from 'vitest';
import { answerJob, answerUploads } from '$lib/tests/xhr';
import { ApiProblem } from './client';
import { sendJob, upload } from './upload';

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

describe('a file for long work', () => {
	const begun = { status: 202, body: { id: 5, kind: 'import', state: 'waiting' } };

	it('is followed to its result, with how far it is read', async () => {
		answerUploads(begun);
		answerJob([['message', { share: 0.5, live: null }]], ['done', { id: 4 }]);
		const read: unknown[] = [];
		const onRead = (share: number | null) => read.push(share);
		expect(await sendJob('import', file, { onRead })).toEqual({ id: 4 });
		expect(read).toEqual([0.5]);
	});

	it('says what was refused, and where', async () => {
		answerUploads(begun);
		const errors = [{ field: 'entries.3.at', reason: '' }];
		answerJob([], ['failed', { status: 422, detail: 'That is no time.', errors }]);
		await expect(sendJob('import', file)).rejects.toThrow(
			'rig.json: That is no time. (at entries.3.at)'
		);
	});

	it('asks the server to stop, and waits for what came of it', async () => {
		answerUploads(begun);
		const job = answerJob([], null);
		const stop = new AbortController();
		const going = sendJob('import', file, { signal: stop.signal });
		await vi.waitFor(() => expect(job.opened).toBe('/api/jobs/5/events'));
		stop.abort();
		await vi.waitFor(() => expect(job.deleted).toBe('/api/jobs/5'));
		job.end(['stopped', null]);
		await expect(going).rejects.toThrow('Stopped.');
	});

	it('says when the server is gone on the way', async () => {
		answerUploads(begun);
		answerJob([], ['error', null]);
		await expect(sendJob('import', file)).rejects.toThrow('stopped answering');
	});
});
