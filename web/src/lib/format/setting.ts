import { reference } from '$lib/bench/reference.svelte';

/** The value of a setting in words, in the archer's units. */
export function settingText(path: string, value: unknown): string {
	if (value === null || value === undefined || value === '') return 'not set';
	const note = reference.catalog?.fields[path];
	if (Array.isArray(value)) {
		const numbers = value.every((v) => typeof v === 'number');
		if (numbers && note?.quantity)
			return value.map((v) => reference.text(v as number, note.quantity as string)).join(', ');
		return value.length === 1 ? '1 entry' : `${value.length} entries`;
	}
	if (typeof value === 'number' && note?.quantity) return reference.text(value, note.quantity);
	return reference.word(path, value);
}
