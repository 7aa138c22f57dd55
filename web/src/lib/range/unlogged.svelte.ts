import type { Schemas } from '$lib/api/client';
import type { Outbox } from './outbox.svelte';
import type { Taken } from './setting';

export interface Arrow {
	right_cm: number;
	up_cm: number;
	/** By keys and not by a tap. */
	keyed: boolean;
}
type Test = Schemas['ReadingView']['tests'][number]['id'];

const PLACE = 'lyrandis.unlogged.';
type Typed = Pick<
	Unlogged,
	'distance' | 'own' | 'arrows' | 'sighters' | 'brace' | 'test' | 'nocks'
>;
type Nullable<T> = { [Name in keyof T]: T[Name] | null };
const number = (value: unknown): number | null => (typeof value === 'number' ? value : null);

/** What is set and tapped at the range and not logged yet: it outlives a leaf, and the page. */
export class Unlogged {
	/** The distance that is looked at and shot [m]. */
	distance = $state(20);
	/** How the end is set by hand, where not by the card; as crawls are counted, or the gap [cm]. */
	own = $state<number | null>(null);
	arrows = $state<Arrow[]>([]);
	sighters = $state(false);
	/** The brace height as it was read [in]. */
	brace = $state<number | null>(null);
	test = $state<'tails' | Test>('tails');
	nocks = $state<number[]>([]);

	constructor(
		private rig: number,
		distance: number
	) {
		this.distance = distance;
		const { distance: at, test } = this.kept();
		this.distance = number(at) ?? this.distance;
		if (typeof test === 'string') this.test = test;
	}

	/** What lies in this browser of how the page is set. */
	private kept(): Partial<Typed> {
		try {
			const kept: unknown = JSON.parse(localStorage.getItem(PLACE + this.rig) ?? '{}');
			return typeof kept === 'object' && kept !== null ? kept : {};
		} catch {
			return {}; // nothing was kept, or nothing that can be read
		}
	}

	/** What an earlier version kept here of what was typed. */
	takeOld(): void {
		const old = this.kept();
		if (old.arrows || old.nocks || old.brace || old.own) this.take(old);
	}

	/** What is typed, with what the page is set to; that counts for nothing where nothing is typed. */
	get typed(): Nullable<Typed> {
		const { distance, own, arrows, sighters, brace, test, nocks } = this;
		const any = own !== null || brace !== null || arrows.length > 0 || nocks.length > 0;
		const set = any ? { distance, sighters, test } : { distance: null, sighters: null, test: null };
		return { ...set, own, arrows, brace, nocks };
	}

	/** Take in what was typed, as far as it is what is typed here; all that it does not name is empty. */
	take(was: Partial<Nullable<Typed>>): void {
		this.distance = number(was.distance) ?? this.distance;
		this.own = number(was.own);
		this.brace = number(was.brace);
		this.sighters = was.sighters === true;
		if (typeof was.test === 'string') this.test = was.test;
		this.nocks = Array.isArray(was.nocks) ? was.nocks.filter(Number.isInteger) : [];
		const arrows = Array.isArray(was.arrows) ? was.arrows : [];
		this.arrows = arrows.filter((a) => Number.isFinite(a?.right_cm + a?.up_cm));
	}

	/** Another distance is set as the card says. */
	pick = (distance_m: number): void => {
		this.distance = distance_m;
		this.own = null;
	};

	/** Keep how the page is set; called whenever that changes. */
	keep(): void {
		const { distance, test } = this;
		try {
			localStorage.setItem(PLACE + this.rig, JSON.stringify({ distance, test }));
		} catch {
			// then it lasts as long as the page
		}
	}
}

/** What every leaf of the page for the range works with. */
export interface AtRange {
	view: Taken;
	outbox: Outbox;
	unlogged: Unlogged;
}
