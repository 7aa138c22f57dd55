import { upload } from '$lib/api/upload';

/** A file on its way to the server: how far it is, and a way to stop it. */
export class Outgoing {
	/** 0 to 1 while it goes, null when nothing does. */
	share = $state<number | null>(null);
	private stopping: AbortController | null = null;

	async send<T>(path: string, file: File): Promise<T> {
		this.stopping = new AbortController();
		this.share = 0;
		try {
			return await upload<T>(path, file, {
				onProgress: (share) => (this.share = share),
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
