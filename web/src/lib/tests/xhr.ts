import { vi } from 'vitest';

/** A stand-in for the browser's request that files are sent with; `null`: nobody answers. */
export function answerUploads(answer: { status: number; body: unknown } | null) {
	const sent: { path: string; aborted: boolean }[] = [];
	class Request {
		upload: { onprogress?: (e: unknown) => void } = {};
		onload?: () => void;
		onerror?: () => void;
		onabort?: () => void;
		status = 0;
		responseText = '';
		private mine = { path: '', aborted: false };
		open(_: string, path: string) {
			this.mine.path = path;
			sent.push(this.mine);
		}
		setRequestHeader() {}
		send() {
			this.upload.onprogress?.({ lengthComputable: true, loaded: 1, total: 2 });
			if (answer === null) return queueMicrotask(() => this.onerror?.());
			queueMicrotask(() => {
				if (this.mine.aborted) return;
				this.status = answer.status;
				this.responseText = JSON.stringify(answer.body);
				this.onload?.();
			});
		}
		abort() {
			this.mine.aborted = true;
			this.onabort?.();
		}
	}
	vi.stubGlobal('XMLHttpRequest', Request);
	return sent;
}

type Told = [event: string, data: unknown];

/** A stand-in for a job that is followed: what it tells, and how it ends (null: when told to). */
export function answerJob(told: Told[], last: Told | null) {
	const job: { opened: string; deleted: string; end: (last: Told) => void } = {
		opened: '',
		deleted: '',
		end: () => undefined
	};
	class Events extends EventTarget {
		onmessage?: (event: MessageEvent<string>) => void;
		onerror?: () => void;
		constructor(path: string) {
			super();
			job.opened = path;
			job.end = (event) => this.tell(event);
			queueMicrotask(() => [...told, ...(last ? [last] : [])].forEach((t) => this.tell(t)));
		}
		private tell([event, data]: Told): void {
			const message = new MessageEvent(event, { data: JSON.stringify(data) });
			if (event === 'message') this.onmessage?.(message);
			else if (event === 'error') this.onerror?.();
			else this.dispatchEvent(message);
		}
		close(): void {}
	}
	vi.stubGlobal('EventSource', Events);
	const others = globalThis.fetch;
	vi.stubGlobal('fetch', async (request: Request) => {
		if (request.method !== 'DELETE') return others(request);
		job.deleted = new URL(request.url).pathname;
		return Response.json({ id: 5, kind: 'import', state: 'running' });
	});
	return job;
}
