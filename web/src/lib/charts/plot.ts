import { scaleLinear, type ScaleLinear } from 'd3-scale';

/**
 * The field of a chart: two scales, and where its edges lie in pixels.
 *
 * The one chart grammar is drawn on it: axes (Axes), what is computed (Curve), how sure it is
 * (Band), what is kept (Curve and Spot as a ghost), regions (Span), a place that is named (Mark),
 * and points by where they come from (Spot): measured a cross, heard one by one a ring, estimated
 * or guessed hollow, the archer's own full.
 */
export interface Plot {
	x: ScaleLinear<number, number>;
	y: ScaleLinear<number, number>;
	left: number;
	right: number;
	top: number;
	bottom: number;
}

export type Pair = readonly [x: number, y: number];
export type Tone = 'ink' | 'quiet' | 'heather' | 'moss' | 'ochre' | 'brick' | 'ghost';
/** Those tones that the theme has a wash of. */
export type Washed = Extract<Tone, 'heather' | 'moss' | 'ochre' | 'brick'>;

interface Extent {
	x: readonly [number, number];
	y: readonly [number, number];
	left: number;
	right: number;
	top: number;
	bottom: number;
	/** Widen a domain to round numbers. */
	nice?: ('x' | 'y')[];
}

export function plot({ x, y, left, right, top, bottom, nice = [] }: Extent): Plot {
	const across = scaleLinear().domain(x).range([left, right]);
	const up = scaleLinear().domain(y).range([bottom, top]);
	return {
		x: nice.includes('x') ? across.nice(8) : across,
		y: nice.includes('y') ? up.nice() : up,
		left,
		right,
		top,
		bottom
	};
}

/** The smallest and the largest of some numbers, with room beyond. */
export function extent(values: number[], room = 0): [number, number] {
	return [Math.min(...values) - room, Math.max(...values) + room];
}

/** Those points that lie within the field. */
export function within(at: Plot, points: readonly Pair[]): Pair[] {
	const [x0, x1] = at.x.domain() as [number, number];
	const [y0, y1] = at.y.domain() as [number, number];
	return points.filter(([x, y]) => x >= x0 && x <= x1 && y >= y0 && y <= y1);
}

/** A scale along one line, between two pixels. */
export function ruler(domain: readonly [number, number], left: number, right: number): Ruler {
	return scaleLinear().domain(domain).range([left, right]);
}

export type Ruler = ScaleLinear<number, number>;
