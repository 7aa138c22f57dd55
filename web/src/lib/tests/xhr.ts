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
