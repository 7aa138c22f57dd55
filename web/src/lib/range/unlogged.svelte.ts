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
		try {
			this.take(JSON.parse(localStorage.getItem(PLACE + rig) ?? '{}') as unknown);
		} catch {
			// nothing was kept, or nothing that can be read
		}
	}

	/** Take in what was kept, as far as it is what is kept here. */
	private take(kept: unknown): void {
		if (typeof kept !== 'object' || kept === null) return;
		const was = kept as Partial<Unlogged>;
		const number = (value: unknown): number | null => (typeof value === 'number' ? value : null);
		this.distance = number(was.distance) ?? this.distance;
		this.own = number(was.own);
		this.brace = number(was.brace);
		this.sighters = was.sighters === true;
		if (typeof was.test === 'string') this.test = was.test;
		if (Array.isArray(was.nocks)) this.nocks = was.nocks.filter(Number.isInteger);
		if (Array.isArray(was.arrows))
			this.arrows = was.arrows.filter((a) => Number.isFinite(a?.right_cm + a?.up_cm));
	}

	/** Another distance is set as the card says. */
	pick = (distance_m: number): void => {
		this.distance = distance_m;
		this.own = null;
	};

	/** Keep it in this browser; called whenever it changes. */
	keep(): void {
		const { distance, own, arrows, sighters, brace, test, nocks } = this;
		const now = JSON.stringify({ distance, own, arrows, sighters, brace, test, nocks });
		try {
			localStorage.setItem(PLACE + this.rig, now);
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
