import { api, ApiProblem, told, type Schemas } from '$lib/api/client';
import { newKey } from '$lib/api/once';
import { valueAt } from '$lib/bench/paths';
import * as shelf from './shelf';
import type { Made } from './shelf';
import { timeNow } from './shelf';

type Taken = Schemas['RangeView'];
type Body = Made['body'];
/** What is done at a station; what is left out is as it is done mostly. */
type Deed = Pick<Body, 'station'> & Partial<Omit<Body, 'seq' | 'made_at'>>;
const MOSTLY = { standing: 'provisional' as const, why: '', changes: {} };

/** What was handed over: its entry in the logbook, and what takes it back. */
export interface Handed {
	made: Made;
	seq: number;
	back: { said: string; deed: Deed } | null;
}

/** What others kept while something waited here. */
export interface Between {
	lines: Schemas['HistoryLine'][];
	seq: number;
}

const BACK = 'taken back at the range';
const SOON_MS = 4000;
const LATE_MS = 60_000;
const PATIENCE_MS = 8000;
const REFUSED = [400, 413, 422];
const MOST_LINES = 20;

/**
 * What is logged at the range: kept in this browser first, handed over as soon as the server is in
 * reach, in the order in which it was made, each once.
 */
export class Outbox {
	/** Not in the logbook yet, the oldest first. */
	made = $state<Made[]>([]);
	/** In the logbook since this page was opened. */
	handed = $state<Handed[]>([]);
	reach = $state(true);
	/** What the server says instead of taking it. */
	fault = $state<string | null>(null);
	/** Whether the browser keeps what is made; if not, only this page does. */
	safe = $state(true);
	meanwhile = $state.raw<Between | null>(null);
	/** What lies in this browser and cannot be read. */
	unread = $state.raw<shelf.Unread[]>([]);
	readonly waiting = $derived(this.made.filter((m) => !m.left));

	private handing = false;
	private more = false;
	private pause = SOON_MS;
	private timer: ReturnType<typeof setTimeout> | undefined;

	constructor(
		private taken: () => Taken,
		/** Called when something got into the logbook, or the server is in reach again. */
		private refresh: () => Promise<void>
	) {
		this.made = shelf.all(taken().id);
		this.unread = shelf.unread(taken().id);
	}

	/** The latest entry that whoever stands here knows of. */
	private get known(): number {
		const handed = Math.max(0, ...this.handed.map((h) => h.seq));
		return this.waiting.at(-1)?.body.seq ?? Math.max(this.taken().seq, handed);
	}

	/** Log something: kept here at once, handed over when that is possible. */
	log(said: string, deed: Deed): void {
		const view = this.taken();
		const made: Made = {
			mark: newKey(),
			rig: view.id,
			at: timeNow(),
			said,
			was: Object.fromEntries(Object.keys(deed.changes ?? {}).map((p) => [p, this.setting(p)])),
			body: { ...MOSTLY, ...deed, seq: this.known, made_at: view.made_at }
		};
		this.made = [...this.made, made];
		this.keep(made);
		void this.hand();
	}

	private keep(made: Made): void {
		this.safe = shelf.put(made) && this.safe;
	}

	private change(mark: string, change: Partial<Made>): void {
		this.made = this.made.map((m) => (m.mark === mark ? { ...m, ...change } : m));
		const made = this.made.find((m) => m.mark === mark);
		if (made) this.keep($state.snapshot(made) as Made);
	}

	/** Leave something out that waits, or take it in again. */
	leave(mark: string, left: boolean): void {
		this.change(mark, { left, refused: undefined, refused_on: undefined });
		if (this.waiting.length === 0) this.meanwhile = null;
		void this.hand();
	}

	/** Throw away what was left out. */
	forget(mark: string): void {
		const made = this.made.find((m) => m.mark === mark);
		if (made?.left) this.gone(made);
	}

	/** Throw away what cannot be read. */
	drop(unread: shelf.Unread): void {
		shelf.drop(unread);
		this.unread = this.unread.filter((one) => one !== unread);
	}

	private gone(made: Made): void {
		shelf.takeOut(made);
		this.made = this.made.filter((m) => m.mark !== made.mark);
	}

	/** Take back what is in the logbook: that too is made here and handed over. */
	takeBack(handed: Handed): void {
		if (!handed.back) return;
		this.handed = this.handed.map((h) => (h === handed ? { ...h, back: null } : h));
		this.log(handed.back.said, handed.back.deed);
	}

	/** Take back what was made last: left out while it waits, else in the logbook. */
	undo(): void {
		const last = this.waiting.at(-1);
		if (last) return this.leave(last.mark, true);
		const handed = this.handed.findLast((h) => h.back);
		if (handed) this.takeBack(handed);
	}

	/** What was refused by another rig than the one that is here now is offered to this one. */
	private offerAgain(): void {
		const here = this.taken().made_at;
		for (const { mark, refused, refused_on } of this.waiting)
			if (refused && refused_on !== here)
				this.change(mark, { refused: undefined, refused_on: undefined });
	}

	/**
	 * Hand over what waits, one after another, until it is done or cannot go on; what is refused
	 * waits by itself.
	 */
	async hand(): Promise<void> {
		// What comes while this is under way is seen to after it.
		this.more = this.handing;
		if (this.handing || this.meanwhile) return;
		this.handing = true;
		clearTimeout(this.timer);
		let any = false;
		try {
			this.offerAgain();
			for (let next = this.next; next; next = this.next) any = (await this.offer(next)) || any;
			if (!any && !this.reach) {
				await this.refresh();
				this.answered();
			}
		} catch (error) {
			await this.tell(error as ApiProblem);
		} finally {
			this.handing = false;
		}
		if (any && this.reach) await this.refresh().catch(() => undefined);
		if (this.more && this.reach && !this.fault) await this.hand();
	}

	private get next(): Made | undefined {
		return this.waiting.find((made) => !made.refused);
	}

	/** Send one; whether it was taken. A refusal is noted with it. */
	private async offer(made: Made): Promise<boolean> {
		try {
			await this.send(made);
			return true;
		} catch (error) {
			const { status, message } = error as ApiProblem;
			if (!REFUSED.includes(status)) throw error;
			this.answered();
			this.change(made.mark, { refused: message, refused_on: this.taken().made_at });
			return false;
		}
	}

	private answered(): void {
		this.reach = true;
		this.pause = SOON_MS;
		this.fault = null;
	}

	private async send(made: Made): Promise<void> {
		const { seq } = await told(
			api.POST('/api/rigs/{id}/hand-over', {
				params: { path: { id: made.rig } },
				body: { ...($state.snapshot(made.body) as Made['body']), mark: made.mark },
				signal: AbortSignal.timeout(PATIENCE_MS)
			})
		);
		this.answered();
		// Those behind it know of it; first, so that nothing is asked twice should this page end here.
		for (const other of this.made)
			if (other.mark !== made.mark) this.change(other.mark, { body: { ...other.body, seq } });
		this.handed = [...this.handed, { made, seq, back: this.wayBack(made, seq) }];
		this.gone(made);
	}

	private wayBack(made: Made, seq: number): Handed['back'] {
		const { station, trial, changes } = made.body;
		const said = `Taken back: ${made.said}`;
		if (trial) return { said, deed: { station, strikes: seq } };
		if (Object.keys(changes ?? {}).length === 0 || made.body.why === BACK) return null;
		return { said, deed: { station, changes: made.was, why: BACK } };
	}

	/** A setting as it stands here: as this page was told, or as what waits would set it. */
	setting(path: string): unknown {
		const set = this.waiting.findLast((made) => path in (made.body.changes ?? {}));
		return set ? set.body.changes?.[path] : valueAt(this.taken().bench.rig, path);
	}

	private async tell(problem: ApiProblem): Promise<void> {
		const first = this.next;
		if (problem.conflict && first) return this.ask(first);
		this.reach = problem.status !== 0;
		this.fault = this.reach ? problem.message : null;
		this.later();
	}

	/** Try again after a while, ever longer. */
	later(): void {
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.hand(), this.pause);
		this.pause = Math.min(2 * this.pause, LATE_MS);
	}

	/** What was kept since: its archer chooses, nothing is written before. */
	private async ask(first: Made): Promise<void> {
		const at = { path: { id: first.rig } };
		try {
			const [now, lines] = await Promise.all([
				told(api.GET('/api/rigs/{id}', { params: at })),
				told(
					api.GET('/api/rigs/{id}/history', {
						params: { ...at, query: { since: first.body.seq, most: MOST_LINES } }
					})
				)
			]);
			this.meanwhile = { lines, seq: now.seq };
		} catch {
			this.later();
		}
	}

	/** Everything that waits goes on top of what was kept since; so does what is taken in later. */
	onTop(): void {
		const seq = this.meanwhile?.seq;
		this.meanwhile = null;
		if (seq === undefined) return;
		for (const made of this.made) this.change(made.mark, { body: { ...made.body, seq } });
		void this.hand();
	}

	/** Another window made something, or handed it over. */
	look(): void {
		if (!this.handing) this.made = shelf.all(this.taken().id);
	}

	stop(): void {
		clearTimeout(this.timer);
	}
}
