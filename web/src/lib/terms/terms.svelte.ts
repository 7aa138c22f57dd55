import { api, told, type Schemas } from '$lib/api/client';

type Term = Schemas['Term'];

/** The terms of the craft with their drawings, fetched when they are first asked for. */
class Terms {
	all = $state.raw<Schemas['TermsView'] | null>(null);
	fault = $state<string | null>(null);
	loading = $state(false);
	private asked: Promise<void> | null = null;

	load(): Promise<void> {
		return (this.asked ??= this.fetch());
	}

	private async fetch(): Promise<void> {
		this.loading = true;
		this.fault = null;
		try {
			this.all = await told(api.GET('/api/terms'));
		} catch (error) {
			this.fault = (error as Error).message;
			this.asked = null;
		} finally {
			this.loading = false;
		}
	}

	/** The term behind a setting of a rig. */
	of(path: string): Term | undefined {
		return this.all?.terms.find((t) => t.fields.includes(path));
	}
}

export const terms = new Terms();
