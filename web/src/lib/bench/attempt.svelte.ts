/** Deeds whose refusal is shown beside them: the latest fault, or none. */
export class Attempt {
	fault = $state<string | null>(null);

	/** Do it; a refusal becomes the fault. Whether it was done. */
	async run(deed: () => Promise<void>): Promise<boolean> {
		this.fault = null;
		try {
			await deed();
			return true;
		} catch (error) {
			this.fault = (error as Error).message;
			return false;
		}
	}
}
