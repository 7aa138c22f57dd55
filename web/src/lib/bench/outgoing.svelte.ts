import { sendJob } from '$lib/api/upload';

/** A file on its way to the server: how far it is, and a way to stop it. */
export class Outgoing {
	/** 0 to 1 while it goes, null when nothing does. */
	share = $state<number | null>(null);
	/** How much of it the server has read, 0 to 1; null where that is not known. */
	read = $state<number | null>(null);
	private stopping: AbortController | null = null;

	async send<T>(kind: 'import' | 'restore', file: File): Promise<T> {
		this.stopping = new AbortController();
		this.share = 0;
		this.read = null;
		try {
			return await sendJob<T>(kind, file, {
				onProgress: (share) => (this.share = share),
				onRead: (share) => ([this.share, this.read] = [1, share]),
				signal: this.stopping.signal
			});
		} finally {
			this.share = null;
		}
	}

	stop(): void {
		this.stopping?.abort();
	}
}
