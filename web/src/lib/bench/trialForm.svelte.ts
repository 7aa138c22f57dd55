import type { Schemas } from '$lib/api/client';
import type { Entered, RigBench, TrialOf } from './bench.svelte';
import { useDraft, type Draft } from '$lib/drafts/draft.svelte';
import { One } from './one.svelte';

type Kind = Schemas['TrialLine']['trial']['kind'];
/** What a form asks beside the notes and the day, which every trial has. */
type Fields<K extends Kind> = Omit<TrialOf<K>, 'kind' | 'notes' | 'day'>;

/** What every form of a trial does: log what was typed, say what went wrong, put one right. */
export class TrialForm<K extends Kind> {
	notes = $state('');
	problem = $state<string | null>(null);
	/** The trial that is being put right; null while a new one is typed. */
	about = $state.raw<Entered | null>(null);
	/** As it was logged, while it is put right. */
	was = $state.raw<TrialOf<K> | null>(null);
	private draft: Draft | null = null;
	private one = new One();

	constructor(
		readonly kind: K,
		private bench: () => RigBench,
		/** Empties the form's own fields. */
		private empty: () => void
	) {}

	/** Whether it is being logged. */
	get busy(): boolean {
		return this.one.busy;
	}

	/** Log what the fields say; `changes` are settings kept with it, unless one is put right. */
	async log(
		station: string,
		read: () => Promise<Fields<K>>,
		changes: Record<string, unknown> = {}
	): Promise<void> {
		await this.one.run(() => this.logged(station, read, changes));
	}

	private async logged(
		station: string,
		read: () => Promise<Fields<K>>,
		changes: Record<string, unknown>
	): Promise<void> {
		this.problem = null;
		try {
			const fields = await read();
			const own = { kind: this.kind, notes: this.notes, day: this.was?.day ?? '' };
			const trial = { ...own, ...fields } as unknown as TrialOf<K>;
			const kept = this.about === null ? changes : {};
			if (await this.bench().log(station, trial, this.about, kept)) this.clear();
			else this.problem = this.bench().fault;
		} catch (error) {
			this.problem = (error as Error).message;
		}
	}

	/** Keep what is typed until it is logged; see useDraft. Called as the form is set up. */
	keeps<T extends object>(form: string, get: () => T, set: (was: T) => void): this {
		const get_ = () => ({ ...get(), notes: this.notes, about: this.about, was: this.was });
		this.draft = useDraft(form, get_, ({ notes, about, was, ...own }) => {
			this.notes = notes;
			this.about = about;
			this.was = was;
			set(own as unknown as T);
		});
		return this;
	}

	clear(): void {
		this.notes = '';
		this.about = this.was = null;
		this.empty();
		this.draft?.settle();
	}

	/** Take a logged trial into the form: `fill` puts its values into the fields. */
	edit = (fill: (was: TrialOf<K>) => void) => (line: Schemas['TrialLine']) => {
		if (line.trial.kind !== this.kind) return;
		const was = line.trial as TrialOf<K>;
		this.about = { seq: line.seq, digest: line.digest };
		this.was = was;
		this.notes = was.notes ?? '';
		fill(was);
	};
}
