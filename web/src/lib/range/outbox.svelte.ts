import { api, ApiProblem, told, type Schemas } from '$lib/api/client';
import { folder } from '$lib/api/folder';
import { newKey } from '$lib/api/once';
import { valueAt } from '$lib/bench/paths';
import { noteWaiting } from './origins';
import { timeNow } from '$lib/format/day';
import { type Acts, type Made, type Shelf, type Unread } from './shelf';

type Taken = Schemas['RangeView'];
type Body = Made['body'];
/** What is done at a station; what is left out is as it is done mostly. */
type Deed = Pick<Body, 'station'> & Partial<Omit<Body, 'seq' | 'digest' | 'made_at'>>;
/** An entry as it is named: its number, and its digest, which tells it from that of other data. */
interface Entered {
	seq: number;
	digest?: string | null;
}
const MOSTLY = { standing: 'provisional' as const, why: '', changes: {} };

/** What was handed over: its entry in the logbook, and what takes it back. */
export interface Handed {
	made: Made;
	seq: number;
	digest: string;
	/** The data that it was handed over to. */
	on: string;
	back: { said: string; deed: Deed } | null;
}

/** What others kept while something waited here. */
export interface Between {
	lines: Schemas['HistoryLine'][];
	seq: number;
	digest: string;
}

const BACK = 'taken back at the range';
const SOON_MS = 4000;
const LATE_MS = 60_000;
const PATIENCE_MS = 8000;
const REFUSED = [400, 413, 422];
const MOST_LINES = 20;
/** Not refused. */
const FREE = { refused: undefined, refused_on: undefined, other_data: undefined };
const named = ({ seq, digest }: Entered): Entered => ({ seq, digest });
const CHANNEL = 'lyrandis.acts';
const UNNAMED =
	'It was made by an earlier version, which did not say for certain what it takes back: do that in the logbook.';

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
	/** What only this page holds, by its mark: the browser would not keep it. */
	private unsafe = $state<string[]>([]);
	/** Whether the browser keeps all that is made. */
	readonly safe = $derived(this.unsafe.length === 0);
	/** Whether it is kept in the old place, which holds less. */
	readonly oldPlace: boolean;
	meanwhile = $state.raw<Between | null>(null);
	/** What lies in this browser and cannot be read. */
	unread = $state.raw<Unread[]>([]);
	readonly waiting = $derived(this.made.filter((m) => !m.left));

	private handing = false;
	private more = false;
	private pause = SOON_MS;
	private timer: ReturnType<typeof setTimeout> | undefined;
	/** What the browser is known to hold, and what was taken out of it, by its mark. */
	private saved: string[] = [];
	private out: string[] = [];
	private others: BroadcastChannel | null = null;

	constructor(
		private taken: () => Taken,
		/** Called when something got into the logbook, or the server is in reach again. */
		private refresh: () => Promise<void>,
		private shelf: Shelf,
		acts: Acts
	) {
		this.oldPlace = !shelf.database;
		this.takeIn(acts);
		if (typeof BroadcastChannel !== 'function') return;
		this.others = new BroadcastChannel(CHANNEL);
		this.others.onmessage = () => void this.look();
	}

	/** What lies in the browser, and what only this page holds: memory never becomes less by it. */
	private takeIn(acts: Acts): void {
		const kept = acts.made.filter((made) => !this.out.includes(made.mark));
		this.saved = [...this.saved, ...kept.map((made) => made.mark)];
		const only = this.made.filter((made) => !this.saved.includes(made.mark));
		this.made = [...kept, ...only];
		this.unread = acts.unread;
	}

	/** The data that is served now: the rig, and what was put back or taken in since. */
	private get here(): string {
		return `${this.taken().uid}.${folder()?.generation ?? 0}`;
	}

	/** The latest entry that whoever stands here knows of. */
	private get known(): Entered {
		const last = this.waiting.findLast((made) => !made.refused);
		if (last) return { seq: last.body.seq, digest: last.body.digest };
		const view = this.taken();
		const handed = this.handed.findLast((one) => one.on === this.here);
		return handed && handed.seq > view.seq ? handed : view;
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
			body: { ...MOSTLY, ...deed, ...named(this.known), made_at: view.made_at }
		};
		this.made = [...this.made, made];
		this.keep(made);
		void this.hand();
	}

	/** Have the browser keep it; whether it does is said where one logs. */
	private keep(made: Made): void {
		const { mark } = made;
		const others = (marks: string[]) => marks.filter((one) => one !== mark);
		this.shelf.put($state.snapshot(made) as Made).then(
			() => {
				this.saved.push(mark);
				this.unsafe = others(this.unsafe);
				this.tellOthers();
			},
			() => {
				this.saved = others(this.saved);
				this.unsafe = this.out.includes(mark)
					? others(this.unsafe)
					: [...others(this.unsafe), mark];
			}
		);
	}

	/** Other windows look again; other addresses of this machine know how many wait here. */
	private tellOthers(): void {
		this.others?.postMessage('');
		void this.shelf.count().then(noteWaiting, () => undefined);
	}

	/** Try once more to have the browser keep what only this page holds. */
	private keepAgain(): void {
		for (const made of this.made) if (this.unsafe.includes(made.mark)) this.keep(made);
	}

	private change(mark: string, change: Partial<Made>): void {
		this.made = this.made.map((m) => (m.mark === mark ? { ...m, ...change } : m));
		const made = this.made.find((m) => m.mark === mark);
		if (made) this.keep(made);
	}

	/** Leave something out that waits, or take it in again. */
	leave(mark: string, left: boolean): void {
		this.change(mark, { left, ...FREE });
		if (this.waiting.length === 0) this.meanwhile = null;
		void this.hand();
	}

	/** Throw away what was left out. */
	forget(mark: string): void {
		const made = this.made.find((m) => m.mark === mark);
		if (made?.left) this.gone(made);
	}

	/** Throw away what cannot be read. */
	drop(unread: Unread): void {
		void this.shelf.drop(unread).catch(() => undefined);
		this.unread = this.unread.filter((one) => one !== unread);
	}

	private gone({ mark }: Made): void {
		this.out.push(mark);
		this.made = this.made.filter((m) => m.mark !== mark);
		this.unsafe = this.unsafe.filter((one) => one !== mark);
		const said = () => this.tellOthers();
		// What cannot be taken out is handed over once more, which its mark makes harmless.
		void this.shelf.takeOut(mark).then(said, () => undefined);
	}

	/** What was made on other data is logged on what is served now, as its archer asks. */
	onThis(mark: string): void {
		const made = this.made.find((m) => m.mark === mark);
		if (!made || made.body.strikes != null) return;
		const { made_at } = this.taken();
		this.change(mark, { ...FREE, body: { ...made.body, ...named(this.known), made_at } });
		void this.hand();
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

	/** What was refused where other data was served is offered to what is here now. */
	private offerAgain(): void {
		for (const { mark, refused, refused_on } of this.waiting)
			if (refused && refused_on !== this.here) this.change(mark, FREE);
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
			this.keepAgain();
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
		if (made.body.strikes != null && !made.body.strikes_digest) {
			this.refuse(made, UNNAMED, false);
			return false;
		}
		try {
			await this.send(made);
			return true;
		} catch (error) {
			const { status, message, otherData } = error as ApiProblem;
			if (!REFUSED.includes(status) && !otherData) throw error;
			this.answered();
			this.refuse(made, message, otherData);
			// What is made from now on is made on what is served now.
			if (otherData) await this.refresh().catch(() => undefined);
			return false;
		}
	}

	private refuse(made: Made, refused: string, other_data: boolean): void {
		this.change(made.mark, { refused, refused_on: this.here, other_data });
	}

	private answered(): void {
		this.reach = true;
		this.pause = SOON_MS;
		this.fault = null;
	}

	private async send(made: Made): Promise<void> {
		const { seq, digest } = await told(
			api.POST('/api/rigs/{id}/hand-over', {
				params: { path: { id: made.rig } },
				body: { ...($state.snapshot(made.body) as Made['body']), mark: made.mark },
				signal: AbortSignal.timeout(PATIENCE_MS)
			})
		);
		this.answered();
		// Those behind it know of it; first, so that nothing is asked twice should this page end here.
		for (const other of this.made)
			if (other.mark !== made.mark && !other.other_data)
				this.change(other.mark, { body: { ...other.body, seq, digest } });
		const back = this.wayBack(made, { seq, digest });
		this.handed = [...this.handed, { made, seq, digest, on: this.here, back }];
		this.gone(made);
	}

	private wayBack(made: Made, { seq, digest }: Entered): Handed['back'] {
		const { station, trial, changes } = made.body;
		const said = `Taken back: ${made.said}`;
		if (trial) return { said, deed: { station, strikes: seq, strikes_digest: digest } };
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
			this.meanwhile = { lines, seq: now.seq, digest: now.digest };
		} catch {
			this.later();
		}
	}

	/** Everything that waits goes on top of what was kept since; so does what is taken in later. */
	onTop(): void {
		const now = this.meanwhile;
		this.meanwhile = null;
		if (!now) return;
		for (const made of this.made)
			if (!made.other_data) this.change(made.mark, { body: { ...made.body, ...named(now) } });
		void this.hand();
	}

	/** Another window made something, or handed it over. */
	async look(): Promise<void> {
		if (this.handing) return;
		const acts = await this.shelf.all(this.taken().id).catch(() => null);
		if (acts && !this.handing) this.takeIn(acts);
	}

	stop(): void {
		clearTimeout(this.timer);
		this.others?.close();
		this.others = null;
	}
}
