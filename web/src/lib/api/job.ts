import { api, ApiProblem, problemOf, type Schemas } from './client';

export interface Following {
	/** How far it is, 0 to 1 (null: unknown), and what there is to show at once. */
	onTold?: (share: number | null, live: unknown) => void;
	/** Asks the server to stop it; what was done by then stays done. */
	signal?: AbortSignal;
}

export const STOPPED = 'Stopped. What is shown here is what is kept.';

/** Follow a job to its end: its result, or an ApiProblem. */
export function follow<T>(id: number, { onTold, signal }: Following = {}): Promise<T> {
	return new Promise<T>((done, failed) => {
		const source = new EventSource(`/api/jobs/${id}/events`);
		const stop = () => void api.DELETE('/api/jobs/{id}', { params: { path: { id } } });
		const end = (act: () => void) => {
			source.close();
			signal?.removeEventListener('abort', stop);
			act();
		};
		const data = (event: Event) => JSON.parse((event as MessageEvent<string>).data) as unknown;
		source.onmessage = (event) => {
			const told = data(event) as { share: number | null; live: unknown };
			onTold?.(told.share, told.live);
		};
		source.addEventListener('done', (event) => end(() => done(data(event) as T)));
		source.addEventListener('stopped', () => end(() => failed(new ApiProblem(0, STOPPED))));
		source.addEventListener('failed', (event) => {
			const told = data(event) as Schemas['ProblemDetails'];
			end(() => failed(problemOf(told.status, told)));
		});
		source.onerror = () =>
			end(() => failed(new ApiProblem(0, 'Lyrandis stopped answering. Look at what is kept.')));
		signal?.addEventListener('abort', stop);
		if (signal?.aborted) stop();
	});
}
