import { getContext, setContext } from 'svelte';
import {
	api,
	ApiProblem,
	told,
	type Bench,
	type RigView,
	type Schemas,
	type StationState
} from '$lib/api/client';
import { latest } from './latest';
import { same, valueAt } from './paths';
import { reference } from './reference.svelte';

type Standing = 'provisional' | 'settled';
type Station = Bench['stations'][number]['station'];
export type Reached = Schemas['Reached'];
export type Slot = Schemas['PutOnIn']['slot'];
export type Part = NonNullable<Schemas['PutOnIn']['new']>;
export type Trial = NonNullable<Schemas['KeepIn']['trial']>;
export type TrialOf<Kind extends Trial['kind']> = Extract<Trial, { kind?: Kind }>;

/** An entry as it is named: its number, and its digest, which tells it from that of other data. */
export type Entered = Pick<Schemas['TrialLine'], 'seq' | 'digest'>;

/** What each writing call sends, beside the latest entry this window has seen. */
interface Bodies {
	keep: Omit<Schemas['KeepIn'], 'seq' | 'digest'>;
	strike: Omit<Schemas['StrikeIn'], 'seq' | 'digest'>;
	check: Omit<Schemas['CheckIn'], 'seq' | 'digest'>;
	undo: object;
	redo: object;
}

/** What becomes of what this window was about to write. */
export type Choice = 'mine' | 'theirs' | 'look';

/** What this window was about to log or do, beside its changes. */
export interface Mine {
	trial?: string;
	/** Whether that trial waits on the bench with the changes it brought. */
	waits?: boolean;
	deed?: string;
}

/** What others kept, what this window was about to keep, and the way to choose. */
export interface Meanwhile {
	lines: Schemas['HistoryLine'][];
	kept: RigView;
	sent: Record<string, unknown>;
	mine: Mine | null;
	choose: (choice: Choice) => void;
}

const MOST_LINES = 20;

function history(id: number, since: number) {
	return { params: { path: { id }, query: { since, most: MOST_LINES } } };
}

/** One rig on the bench: as it is kept, as it would be with the changes not kept, and all numbers. */
export class RigBench {
	kept = $state.raw<RigView>() as RigView;
	keptBench = $state.raw<Bench>() as Bench;
	bench = $state.raw<Bench>() as Bench;
	states = $state.raw<StationState[]>([]);
	changes = $state<Record<string, unknown>>({});
	/** What was refused, by field; what was typed stays in the field. */
	refused = $state<Record<string, string>>({});
	fault = $state<string | null>(null);
	busy = $state(false);
	/** Readings of a scale while it is being pulled: draw [in] and force [lb]. */
	live = $state.raw<[number, number][]>([]);
	/** A trial that goes into the history with the changes it brought, when they are kept. */
	trial = $state.raw<Trial | null>(null);
	/** Text that could not be read, by field: keeping waits for it. */
	unread = $state<Record<string, string>>({});
	/** Counts how often the changes were kept or thrown away: fields then show the value again. */
	turns = $state(0);
	private asked = 0;
	/** The station whose numbers are shown; null on pages that show none. */
	private station: Station | null = null;

	/** What someone else kept while this window was about to write; asks what becomes of ours. */
	meanwhile = $state.raw<Meanwhile | null>(null);

	/** Other rigs that keeping the present changes reaches, through parts they share. */
	reaches = $state.raw<Reached[]>([]);

	/** Set when its pages are left: opened again it is read anew. */
	shut = false;

	/** What is being written and must not be written twice, by what it is. */
	private under: Record<string, Promise<boolean>> = {};

	/** The end of what was written last. */
	private written: Promise<unknown> = Promise.resolve();
	/** Why what is changed was proposed, and where it belongs; null where the archer changed it. */
	proposed = $state<{ why: string; station: string | null } | null>(null);
	readonly dirty = $derived(Object.keys(this.changes).length > 0 || this.trial !== null);

	static async open(id: number, station: string | null = null): Promise<RigBench> {
		const rig = new RigBench();
		rig.station = station as Station | null;
		const [kept, seen] = await Promise.all([
			told(api.GET('/api/rigs/{id}', { params: { path: { id } } })),
			rig.preview({}, id)
		]);
		rig.take(kept, seen.bench);
		return rig;
	}

	/** What changes would do, as far as the present station shows it. */
	private preview(changes: Record<string, unknown>, id = this.id) {
		const body = { changes, parts: this.station ? [this.station] : [] };
		return told(api.POST('/api/rigs/{id}/preview', { params: { path: { id } }, body }));
	}

	/** Bring another station's numbers to the bench. */
	async show(station: string | null): Promise<void> {
		this.station = station as Station | null;
		if (!station || this.keptBench.stations.some((s) => s.station === station)) return;
		const { bench } = await this.preview({});
		this.keptBench = joined(this.keptBench, bench);
		if (this.dirty) this.look();
		else this.bench = this.keptBench;
	}

	get id(): number {
		return this.kept.id;
	}

	/** The stations of the rig's route, in working order. */
	readonly route = $derived(
		this.bench.route.stops.flatMap(
			(id) => reference.catalog?.stations.find((s) => s.id === id) ?? []
		)
	);

	private take(kept: RigView, bench: Bench): void {
		this.kept = kept;
		this.states = kept.states;
		this.keptBench = bench;
		this.bench = bench;
		this.changes = {};
		this.refused = {};
		this.unread = {};
		this.trial = null;
		this.fault = null;
		this.reaches = [];
		this.proposed = null;
		this.turns++;
	}

	/** The present value of a setting, changed or kept. */
	value(path: string): unknown {
		return path in this.changes ? this.changes[path] : valueAt(this.kept.rig, path);
	}

	isChanged(path: string): boolean {
		return path in this.changes;
	}

	set(path: string, value: unknown): void {
		this.setAll({ [path]: value });
	}

	setAll(values: Record<string, unknown>): void {
		for (const [path, value] of Object.entries(values)) {
			if (same(value, valueAt(this.kept.rig, path))) delete this.changes[path];
			else this.changes[path] = value;
			delete this.refused[path];
		}
		// What was wanted beside a change is asked for anew, if it still is.
		for (const path of Object.keys(this.refused))
			if (!(path in this.changes)) delete this.refused[path];
		this.look();
	}

	/** Changes that come with their reason, from a page that belongs to no station. */
	propose(values: Record<string, unknown>, why: string, station: string | null): void {
		this.setAll(values);
		this.proposed = { why, station };
	}

	/** What a hand drags: to the nearest step, within the field's own range. */
	drag(path: string, value: number, step: number): void {
		const note = reference.catalog?.fields[path];
		const stepped = Math.round(value / step) * step;
		this.set(path, Math.min(Math.max(stepped, note?.low ?? stepped), note?.high ?? stepped));
	}

	/** Ask what the changes would do; while one question is out, only the latest is asked next. */
	private look = latest<void>(async () => {
		const mine = ++this.asked;
		const sent = $state.snapshot(this.changes);
		try {
			const seen = await this.preview(sent);
			if (mine !== this.asked) return;
			this.bench = seen.bench;
			this.states = seen.states;
			this.reaches = seen.reaches;
			this.fault = null;
		} catch (error) {
			if (mine === this.asked) this.tell(error, sent);
		}
	});

	/** Show a refusal of what was `sent`; what was typed over since is not judged by it. */
	private tell(error: unknown, sent: Record<string, unknown>): void {
		const problem = error as ApiProblem;
		const settings = reference.catalog?.fields ?? {};
		let shown = false;
		for (const e of problem.errors ?? []) {
			// A list's entry is told at the list, and a companion that is wanted at its own field.
			const names = [e.field, e.field.replace(/(\.\d+)+$/, '')];
			const path = names.find((p) => p in this.changes || p in settings);
			if (path === undefined) continue;
			if (path in this.changes && !same(this.changes[path], sent[path])) {
				shown = true;
				continue;
			}
			this.refused[path] = e.reason;
			shown ||= path in this.changes || this.beside(path);
		}
		const anew = problem.otherData ? ' Load this page anew to see it.' : '';
		this.fault = shown ? null : problem.message + anew;
	}

	/** Whether a setting stands at the same station as one that was changed. */
	private beside(path: string): boolean {
		const stations = reference.catalog?.stations ?? [];
		return stations.some(
			(s) => s.settings.includes(path) && s.settings.some((p) => p in this.changes)
		);
	}

	/** Why a setting is refused, or why what is set there cannot be computed; null if neither. */
	problem(path: string): string | null {
		const stations = [...this.bench.stations, ...this.bench.notes];
		const station = stations.find((s) => s.problem?.field === path);
		const told = station?.problem;
		const reason = told?.said ? reference.said(told.said) : told?.reason;
		return this.refused[path] ?? reason ?? null;
	}

	/** Of some settings those that are changed and not kept yet. */
	changed(paths: string[]): Record<string, unknown> {
		const now = $state.snapshot(this.changes);
		return Object.fromEntries(Object.entries(now).filter(([path]) => paths.includes(path)));
	}

	revert(): void {
		this.changes = {};
		this.refused = {};
		this.unread = {};
		this.trial = null;
		this.fault = null;
		this.proposed = null;
		this.asked++;
		this.turns++;
		this.bench = this.keptBench;
		this.states = this.kept.states;
	}

	/** What was changed, or set back, after `sent` went out: it must not be lost. */
	private since(sent: Record<string, unknown>): Record<string, unknown> {
		const now = $state.snapshot(this.changes) as Record<string, unknown>;
		const later: Record<string, unknown> = {};
		for (const [path, value] of Object.entries(now))
			if (!(path in sent) || !same(value, sent[path])) later[path] = value;
		for (const path of Object.keys(sent))
			if (!(path in now)) later[path] = valueAt(this.kept.rig, path);
		return later;
	}

	/**
	 * Run one writing call that keeps `sent`; afterwards the rig is as the server has it.
	 *
	 * One at a time: what is pressed while another is under way follows it, on what that made.
	 * Where someone kept a change meanwhile, what becomes of ours is asked on screen; `mine` is
	 * what the call would log or do, beside the changes, and null where it cannot go on top.
	 * The same `deed` pressed again while it is under way is one.
	 */
	private write(
		call: () => Promise<RigView>,
		sent: Record<string, unknown> = $state.snapshot(this.changes),
		mine: Mine | null = {},
		deed?: unknown
	): Promise<boolean> {
		const named = deed === undefined ? null : JSON.stringify(deed);
		const under = named === null ? undefined : this.under[named];
		if (under) return under;
		const written = this.begin(call, sent, mine);
		if (named !== null) {
			this.under[named] = written;
			void written.finally(() => delete this.under[named]);
		}
		return written;
	}

	private begin(
		call: () => Promise<RigView>,
		sent: Record<string, unknown>,
		mine: Mine | null
	): Promise<boolean> {
		this.busy = true;
		const written = this.written.then(() => this.writeNext(call, sent, mine));
		this.written = written;
		return written.finally(() => {
			if (this.written === written) this.busy = false;
		});
	}

	private async writeNext(
		call: () => Promise<RigView>,
		sent: Record<string, unknown>,
		mine: Mine | null
	): Promise<boolean> {
		const trial = this.trial;
		try {
			const kept = await this.onTop(call, sent, mine);
			if (kept === null) return false;
			const seen = await this.preview({}, kept.id);
			this.asked++;
			const later = this.since(sent);
			this.take(kept, seen.bench);
			if (Object.keys(later).length > 0) {
				this.setAll(later);
				if (Object.keys(sent).length === 0) this.trial = trial;
			}
			return true;
		} catch (error) {
			this.tell(error, sent);
			return false;
		}
	}

	/** The call's answer, on top of what others kept if that is wanted; null if it is not made. */
	private async onTop(
		call: () => Promise<RigView>,
		sent: Record<string, unknown>,
		mine: Mine | null
	): Promise<RigView | null> {
		for (;;) {
			try {
				return await call();
			} catch (error) {
				if (!(error instanceof ApiProblem) || !error.conflict) throw error;
			}
			const since = this.kept.seq;
			const [kept, lines, seen] = await Promise.all([
				told(api.GET('/api/rigs/{id}', this.at())),
				told(api.GET('/api/rigs/{id}/history', history(this.id, since))),
				this.preview({})
			]);
			const choice = await new Promise<Choice>((choose) => {
				this.meanwhile = { lines, kept, sent, mine, choose };
			});
			this.meanwhile = null;
			const theirs = choice === 'theirs';
			if (theirs && mine?.waits) this.trial = null;
			this.adopt(kept, seen.bench, theirs ? sent : {});
			if (choice !== 'mine') return null;
		}
	}

	/** Take in what others kept; changes not kept stay on top, but for those `dropped`. */
	private adopt(kept: RigView, bench: Bench, dropped: Record<string, unknown>): void {
		this.asked++;
		this.kept = kept;
		this.keptBench = bench;
		this.refused = {};
		this.fault = null;
		const left = Object.entries($state.snapshot(this.changes)).filter(([p]) => !(p in dropped));
		this.changes = {};
		this.turns++;
		this.bench = bench;
		this.states = kept.states;
		if (left.length) this.setAll(Object.fromEntries(left));
	}

	/** The latest entry this window has seen. */
	private get seen(): Entered {
		return { seq: this.kept.seq, digest: this.kept.digest };
	}

	private at() {
		return { params: { path: { id: this.id } } };
	}

	/** A write seen from the latest entry this window knows. */
	private post<Deed extends keyof Bodies>(deed: Deed, body: Bodies[Deed]): Promise<RigView> {
		const sent = { ...this.at(), body: { ...body, ...this.seen } };
		return told(api.POST(`/api/rigs/{id}/${deed}` as '/api/rigs/{id}/undo', sent));
	}

	keep(station: string | null, why: string, standing: Standing): Promise<boolean> {
		const body = {
			station,
			why,
			standing,
			changes: $state.snapshot(this.changes),
			trial: this.trial
		};
		const mine = this.trial?.kind ? { trial: this.trial.kind, waits: true } : {};
		return this.write(() => this.post('keep', body), body.changes, mine, ['keep', body]);
	}

	/** Log a trial, or put an earlier one right; changes not kept stay as they are. */
	log(
		station: string,
		trial: Trial,
		about: Entered | null = null,
		changes: Record<string, unknown> = {}
	): Promise<boolean> {
		const body = {
			station,
			trial,
			about: about?.seq ?? null,
			about_digest: about?.digest ?? null,
			changes,
			why: '',
			standing: 'provisional' as const
		};
		const mine = trial.kind ? { trial: trial.kind } : {};
		return this.write(() => this.post('keep', body), changes, mine, ['log', body]);
	}

	/** Strike a trial out, or take it in again; changes not kept stay as they are. */
	strike({ seq, digest }: Entered, out: boolean): Promise<boolean> {
		const body = { about: seq, about_digest: digest, out, why: '' };
		const mine = { deed: out ? 'A trial struck out' : 'A trial taken in again' };
		return this.write(() => this.post('strike', body), {}, mine, ['strike', body]);
	}

	check(station: string, standing: Standing): Promise<boolean> {
		const body = { station, standing, why: '' };
		const mine = { deed: standing === 'settled' ? 'Settled as it is' : 'It holds for now' };
		return this.write(() => this.post('check', body), {}, mine, ['check', body]);
	}

	/** Put another part on, from the rack by its mark, or a new one. */
	putOn(slot: Slot, part: { mark: string } | { new: Part }, why: string): Promise<boolean> {
		const sent = { ...this.at(), body: { slot, ...part, why, ...this.seen } };
		const mine = { deed: 'Another part put on' };
		const put = () => told(api.POST('/api/rigs/{id}/put-on', sent));
		return this.write(put, {}, mine, ['put on', slot, part, why]);
	}

	/** Waits until what is being written is done. */
	async atRest(): Promise<void> {
		while (this.busy) await this.written;
	}

	undo(): Promise<boolean> {
		return this.write(() => this.post('undo', {}), {}, null);
	}

	redo(): Promise<boolean> {
		return this.write(() => this.post('redo', {}), {}, null);
	}

	/** The state of a station as the present changes would make it. */
	state(station: string): StationState | undefined {
		return this.states.find((s) => s.station === station);
	}
}

/** One look at a rig with the parts of another look at the same. */
function joined(one: Bench, other: Bench): Bench {
	const parts = Object.entries(other).filter(([, part]) => part !== null);
	return { ...one, ...Object.fromEntries(parts), stations: [...one.stations, ...other.stations] };
}

const KEY = Symbol('bench');

export function putBench(read: () => RigBench): void {
	setContext(KEY, read);
}

/** The rig on the bench of this page. */
export function useBench(): () => RigBench {
	return getContext<() => RigBench>(KEY);
}
