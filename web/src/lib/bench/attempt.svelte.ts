import { One } from './one.svelte';

/** Deeds whose refusal is shown beside them, one at a time: the latest fault, or none. */
export class Attempt {
	fault = $state<string | null>(null);
	private one = new One();

	get busy(): boolean {
		return this.one.busy;
	}

	/** Do it, unless one is at work; a refusal becomes the fault. Whether it was done. */
	async run(deed: () => Promise<void>): Promise<boolean> {
		let done = false;
		await this.one.run(async () => {
			this.fault = null;
			try {
				await deed();
				done = true;
			} catch (error) {
				this.fault = (error as Error).message;
			}
		});
		return done;
	}
}
