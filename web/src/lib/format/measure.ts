import type { Schemas } from '$lib/api/client';

export type Unit = Schemas['UnitView'];

/** A number set for reading: sign and whole, a fraction to be set small, and the unit. */
export interface Shown {
	whole: string;
	fraction: string | null;
	unit: string;
}

const MINUS = '−';

function divisor(a: number, b: number): number {
	return b === 0 ? a : divisor(b, a % b);
}

/** A value in `stored` units as a number of `unit`. */
export function convert(value: number, stored: Unit, unit: Unit): number {
	return stored.per_base === unit.per_base ? value : value * (stored.per_base / unit.per_base);
}

/** One of a thing is said otherwise than many. */
const label = (text: string, unit: Unit): string =>
	unit.one && text === '1' ? unit.one : unit.label;

/** A number of `unit` split for setting; `exact` keeps more decimals for typing. */
export function setNumber(number: number, unit: Unit): Shown {
	if (unit.denominator > 0) {
		// Ties go away from nothing, here and in `toFixed`: as the core rounds.
		const parts = Math.floor(Math.abs(number) * unit.denominator + 0.5);
		const sign = number < 0 && parts > 0 ? MINUS : '';
		const whole = Math.floor(parts / unit.denominator);
		const top = parts % unit.denominator;
		if (top === 0)
			return { whole: `${sign}${whole}`, fraction: null, unit: label(`${whole}`, unit) };
		const common = divisor(top, unit.denominator);
		return {
			whole: whole > 0 ? `${sign}${whole}` : sign,
			fraction: `${top / common}/${unit.denominator / common}`,
			unit: unit.label
		};
	}
	const text = Math.abs(number).toFixed(unit.decimals);
	const sign = number < 0 && Number(text) !== 0 ? MINUS : '';
	return { whole: `${sign}${text}`, fraction: null, unit: label(text, unit) };
}

/** The same as plain text, without its unit. */
export function plain(shown: Shown): string {
	if (shown.fraction === null) return shown.whole;
	const gap = /\d/.test(shown.whole) ? ' ' : '';
	return `${shown.whole}${gap}${shown.fraction}`;
}

/** A limit, or what was typed: without noughts after the point. */
export const exactly = (text: string): string =>
	text.replace(/(\.\d*?)0+(?=\D|$)/, (_, kept: string) => (kept === '.' ? '' : kept));

/** A ± is never shown as nothing: at least one step of the unit's fractions. */
export function setSpread(number: number, unit: Unit): Shown {
	const least = unit.denominator > 0 ? 1 / unit.denominator : 0;
	return setNumber(Math.max(number, least), unit);
}

/** A count, in groups of three. */
export function whole(count: number): string {
	return count.toLocaleString('en-GB');
}
