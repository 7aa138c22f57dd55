import { onDestroy, untrack } from 'svelte';
import { api, told, type Schemas } from '$lib/api/client';
import { useBench, type RigBench } from '$lib/bench/bench.svelte';
import { timeNow } from '$lib/format/day';
import { lives, others, own, remove, save, type Place, type Typed } from './store';

type Fields = Record<string, unknown>;
const MOST_LINES = 3;

/** The forms on the page that keep what is typed. */
class Open {
	drafts = $state.raw<Draft[]>([]);
}
export const open = new Open();

/** What one form keeps: shown as waiting where it was typed before the form was opened. */
export class Draft {
	/** When what stands in the form was typed, if before it was opened. */
	since = $state<string | null>(null);
	/** What changed in the rig since it was typed, the latest first. */
	lines = $state.raw<Schemas['HistoryLine'][]>([]);
	/** Since when another window, open still, holds something typed into the same form. */
	elsewhere = $state<string | null>(null);
	/** Whether the browser keeps it. */
	safe = $state(true);
	private place: Place;
	/** The fields as they stand when nothing is typed. */
	private rest = $state('');

	constructor(
		/** What the form is, in words. */
		readonly form: string,
		private get: () => Fields,
		private set: (was: Fields) => void,
		private bench: (() => RigBench) | null,
		rig: string
	) {
		this.place = { rig, form };
		this.rest = JSON.stringify(get());
		const left = own(this.place);
		if (left) this.show(left);
		else void this.look();
	}

	/** Take over what a window that is gone left; say what one that is open holds. */
	private async look(): Promise<void> {
		for (const { window, typed } of others(this.place)) {
			if (await lives(window)) {
				this.elsewhere ??= typed.at;
				continue;
			}
			if (JSON.stringify(this.get()) !== this.rest) return; // something was typed meanwhile
			if (save(this.place, typed)) remove(this.place, window);
			this.show(typed);
			return;
		}
	}

	private show(typed: Typed): void {
		const empty = JSON.parse(this.rest) as Fields;
		const fits = Object.entries(typed.fields).filter(
			([name, value]) => name in empty && alike(empty[name], value)
		);
		this.set({ ...empty, ...Object.fromEntries(fits) });
		this.since = typed.at;
		void this.lookAtRig(typed.seq);
	}

	private async lookAtRig(seq: number | null): Promise<void> {
		const rig = this.bench?.();
		if (!rig || seq === null || rig.kept.seq <= seq) return;
		const at = { params: { path: { id: rig.id }, query: { since: seq, most: MOST_LINES } } };
		this.lines = await told(api.GET('/api/rigs/{id}/history', at)).catch(() => []);
	}

	/** Keep the fields as they stand; nothing where nothing is typed. Called whenever they change. */
	keep(): void {
		const now = JSON.stringify(this.get());
		untrack(() => {
			if (now === this.rest) {
				remove(this.place);
				this.since = null;
				return;
			}
			const kept = own(this.place);
			if (kept && JSON.stringify(kept.fields) === now) return;
			const seq = this.bench?.().kept.seq ?? null;
			const fields = JSON.parse(now) as Fields;
			this.safe = save(this.place, { at: timeNow(), seq, fields });
		});
	}

	/** What was typed is logged: what still stands in the form is where the next begins. */
	settle(): void {
		this.rest = JSON.stringify(this.get());
		this.since = null;
		this.lines = [];
		remove(this.place);
	}

	/** Drop what was typed. */
	drop(): void {
		this.set(JSON.parse(this.rest) as Fields);
		this.settle();
	}
}

/** Whether a value may stand where another one did: of an older version it might not. */
function alike(one: unknown, other: unknown): boolean {
	if (one === null || other === null) return true;
	return typeof one === typeof other && Array.isArray(one) === Array.isArray(other);
}

/**
 * Keep what is typed into a form until it is logged: it outlives leaves, stations, Back, a reload.
 * Called as the form is set up.
 *
 * @param form what the form is, in words, and its name in the store for good
 * @param get its fields as they stand, plain values
 * @param set puts such fields back
 * @param rig whose form it is, where that is no rig on the bench
 */
export function useDraft<T extends object>(
	form: string,
	get: () => T,
	set: (was: T) => void,
	rig?: string
): Draft {
	const bench = rig === undefined ? useBench() : null;
	const read = () => $state.snapshot(get()) as Fields;
	const draft = untrack(
		() =>
			new Draft(
				form,
				read,
				(was) => set(was as T),
				bench,
				rig ?? (bench as () => RigBench)().kept.uid
			)
	);
	$effect(() => draft.keep());
	untrack(() => (open.drafts = [...open.drafts, draft]));
	onDestroy(() => (open.drafts = open.drafts.filter((one) => one !== draft)));
	return draft;
}
