/** A drawing's frame: inches (or any unit) to pixels, Y up; mirrored for a left-handed archer. */
export interface Frame {
	x(value: number): number;
	y(value: number): number;
	/** Pixels for one unit. */
	scale: number;
	/** Back from pixels. */
	atX(pixel: number): number;
	atY(pixel: number): number;
	/** +1, or −1 where the drawing is mirrored. */
	way: 1 | -1;
}

export interface Window {
	x0: number;
	x1: number;
	y0: number;
	y1: number;
}

export interface Box {
	left: number;
	top: number;
	width: number;
	height: number;
}

/** Whether a plate is drawn for a phone: parts under one another, words under the picture. */
export const narrow = (width: number): boolean => width < 520;

/** Fit a window into a box, to one scale both ways, centred. */
export function fit(window: Window, box: Box, mirrored = false): Frame {
	const wide = window.x1 - window.x0;
	const high = window.y1 - window.y0;
	const scale = Math.min(box.width / wide, box.height / high);
	const left = box.left + (box.width - wide * scale) / 2;
	const top = box.top + (box.height - high * scale) / 2;
	const way = mirrored ? -1 : 1;
	const from = mirrored ? window.x1 : window.x0;
	return {
		x: (value) => left + way * (value - from) * scale,
		y: (value) => top + (window.y1 - value) * scale,
		scale,
		atX: (pixel) => from + (way * (pixel - left)) / scale,
		atY: (pixel) => window.y1 - (pixel - top) / scale,
		way
	};
}

export type Point = readonly [number, number] | number[];

/** A path through points, closed if asked. */
export function path(points: readonly Point[], at: Frame, closed = false): string {
	const steps = points.map(([x, y], i) => `${i ? 'L' : 'M'}${at.x(x ?? 0)} ${at.y(y ?? 0)}`);
	return steps.join('') + (closed ? 'Z' : '');
}
