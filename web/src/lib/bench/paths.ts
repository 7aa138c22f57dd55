import type { Rig } from '$lib/api/client';

/** The value of a setting by its dotted path. */
export function valueAt(rig: Rig, path: string): unknown {
	return path
		.split('.')
		.reduce<unknown>((at, name) => (at as Record<string, unknown> | undefined)?.[name], rig);
}

/** Whether two settings are the same, lists included. */
export function same(a: unknown, b: unknown): boolean {
	if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) < 1e-9;
	return a === b || JSON.stringify(a) === JSON.stringify(b);
}
