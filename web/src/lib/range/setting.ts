import type { Schemas } from '$lib/api/client';
import { reference } from '$lib/bench/reference.svelte';

export type Taken = Schemas['RangeView'];
export type Line = Taken['lines'][number];
type CountedBy = NonNullable<Taken['bench']['rig']['aim']['counted_by']>;

/** How the archer of a rig counts a crawl; null for one who holds gaps. */
export function countedBy(view: Taken): CountedBy | null {
	if (view.way !== 'crawls') return null;
	return view.bench.rig.aim.counted_by ?? 'mm';
}

export const QUANTITY = { mm: 'crawl', marks: 'marks', fingers: 'finger_parts' } as const;

interface Aim {
	set_to: number | null;
	hold_over_cm: number | null;
	counted: Line['counted'];
}

/** How far under the spot the tip is held, or over it. */
const over = (cm: number): string =>
	`${reference.text(Math.abs(cm), 'spot')} ${cm < 0 ? 'over' : 'under'}`;

/** What is done at a distance, as the archer counts it: a crawl, a gap, or how far over to hold. */
export function settingText(aim: Aim, by: CountedBy | null): string {
	if (by === null) return aim.set_to === null ? '–' : over(aim.set_to);
	if (aim.set_to === null) return aim.hold_over_cm === null ? '–' : over(-aim.hold_over_cm);
	if (by === 'mm' || !aim.counted) return reference.text(aim.set_to, 'crawl');
	if (by === 'fingers') return reference.text(aim.counted.fingers, 'finger_parts');
	return aim.counted.words || reference.text(aim.counted.marks, 'marks');
}

/** The ± of a line: of a crawl also as what it comes to on the butt, in full or as in a table. */
export function spreadText(line: Line, by: CountedBy | null, full = false): string {
	if (line.set_to === null) return '';
	if (by === null) return `± ${reference.text(line.plus_minus, 'spot')}`;
	const spread = `± ${reference.text(line.plus_minus, 'crawl')}, ${reference.text(line.off_cm, 'spot')}`;
	return full ? `${spread} on the butt` : spread;
}

/** The card's line for a distance, or null where it has none. */
export const lineAt = (view: Taken, distance_m: number): Line | null =>
	view.lines.find((line) => Math.abs(line.distance_m - distance_m) < 0.01) ?? null;

/** What one of what a crawl is counted in measures [mm]. */
export function eachOf(view: Taken, by: CountedBy | null): number {
	const { stitch_pitch_mm, finger_width_mm } = view.bench.rig.archer;
	if (by === 'marks') return stitch_pitch_mm ?? 1;
	return by === 'fingers' ? (finger_width_mm ?? 1) : 1;
}

/** The card's setting: a crawl as it is counted, or the gap [cm]; 0 beyond point-on. */
export function cardedOf(line: Line | null, by: CountedBy | null): number {
	if (by === 'marks') return line?.counted?.marks ?? 0;
	if (by === 'fingers') return line?.counted?.fingers ?? 0;
	return line?.set_to ?? 0;
}

/** The crawl of an end [mm]: by hand, or as the card says. */
export function crawlOf(view: Taken, line: Line | null, own: number | null): number {
	const by = countedBy(view);
	if (by === null) return view.steady_crawl_mm;
	return (own ?? cardedOf(line, by)) * eachOf(view, by);
}
