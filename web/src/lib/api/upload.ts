import { ApiProblem, told, type Schemas } from './client';
import { follow, STOPPED } from './job';
import { answered, keyOf, writes } from './once';

export interface Sending {
	/** How much of the file has gone out, 0 to 1; at 1 the server is reading it. */
	onProgress?: (share: number) => void;
	/** How much of it the server has read, where it can tell. */
	onRead?: (share: number | null) => void;
	/** Ends the sending; the server ends its work too, unless it was done already. */
	signal?: AbortSignal;
}

/** Send a file for a piece of long work and follow it to its result. */
export async function sendJob<T>(
	kind: 'import' | 'sound' | 'restore',
	file: File,
	sending: Sending = {},
	query = '',
	fields: Record<string, string> = {}
): Promise<T> {
	const job = await upload<Schemas['JobView']>(`/api/jobs/${kind}${query}`, file, sending, fields);
	try {
		const { onRead, signal } = sending;
		return await follow<T>(job.id, { onTold: (share) => onRead?.(share), signal });
	} catch (error) {
		throw named(file, error as ApiProblem);
	}
}

/** A problem with the file it is about, and the place in it. */
function named(file: File, problem: ApiProblem): ApiProblem {
	if (problem.status === 0) return problem;
	const place = problem.errors[0]?.field;
	const where = place && !problem.message.toLowerCase().includes(place) ? ` (at ${place})` : '';
	const message = `${file.name}: ${problem.message}${where}`;
	return new ApiProblem(problem.status, message, problem.errors);
}

/** Send one file; the answer, or an ApiProblem that names the file and the place of the fault. */
export async function upload<T>(
	path: string,
	file: File,
	sending: Sending = {},
	fields: Record<string, string> = {}
): Promise<T> {
	try {
		return await told<T>(send<T>(path, file, sending, fields));
	} catch (error) {
		if (sending.signal?.aborted) throw new ApiProblem(0, STOPPED);
		throw named(file, error as ApiProblem);
	}
}

/** The browser tells how far a sending got by this older way only. */
function send<T>(
	path: string,
	file: File,
	{ onProgress, signal }: Sending,
	fields: Record<string, string>
) {
	const body = new FormData();
	body.append('file', file);
	for (const [name, value] of Object.entries(fields)) body.append(name, value);
	return new Promise<{ data?: T; error?: unknown; response: Response }>((done, failed) => {
		const request = new XMLHttpRequest();
		request.open('POST', path);
		const said = Object.entries(fields).flat().join(' ');
		const asked = `POST ${path} ${file.name} ${file.size} ${file.lastModified} ${said}`;
		if (writes(path)) request.setRequestHeader('Idempotency-Key', keyOf(asked));
		request.upload.onprogress = (e) => onProgress?.(e.lengthComputable ? e.loaded / e.total : 0);
		request.onload = () => {
			const { status, responseText } = request;
			answered(asked, status);
			const ok = status >= 200 && status < 300;
			let read: unknown;
			try {
				read = JSON.parse(responseText);
			} catch {
				read = undefined;
			}
			const response = new Response(null, { status: status || 500 });
			done(ok ? { data: read as T, response } : { error: read ?? {}, response });
		};
		request.onerror = request.onabort = () => failed(new TypeError('no answer'));
		signal?.addEventListener('abort', () => request.abort());
		request.send(body);
	});
}
