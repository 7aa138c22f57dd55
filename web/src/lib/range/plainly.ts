import { ApiProblem } from '$lib/api/client';
import { reference } from '$lib/bench/reference.svelte';

const NUMBER = /^([-−+]?)(?:(\d+)[ -])?(\d+)\/(\d+)$|^([-−+]?)(\d+(?:[.,]\d*)?|[.,]\d+)$/;

/** A number, or a whole and a fraction, in the unit that is shown; null for anything else. */
export function plainNumber(text: string): number | null {
	const found = NUMBER.exec(text.trim());
	if (!found) return null;
	const sign = ['-', '−'].includes(found[1] || found[5] || '') ? -1 : 1;
	if (found[6] !== undefined) return sign * Number(found[6].replace(',', '.'));
	const below = Number(found[4]);
	return below === 0 ? null : sign * (Number(found[2] ?? 0) + Number(found[3]) / below);
}

/** What was typed, in stored units: a plain number here, anything else as the server reads it. */
export async function readPlainly(text: string, quantity: string): Promise<number> {
	const unit = reference.unit(quantity).label;
	const bare = text.trim().endsWith(unit) ? text.trim().slice(0, -unit.length) : text;
	const number = plainNumber(bare);
	if (number !== null) return reference.toStored(number, quantity);
	try {
		return await reference.read(text, quantity);
	} catch (error) {
		if ((error as ApiProblem).status !== 0) throw error;
		throw new Error(`Out of reach only a plain number in ${unit} is read.`, { cause: error });
	}
}
