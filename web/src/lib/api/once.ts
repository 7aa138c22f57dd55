/**
 * Keys by which the server does a writing request once, however often it is sent.
 *
 * A request that was not answered keeps its key: sent again as it is, it is the same deed. Once it
 * is answered, the next alike is a deed of its own.
 */
const open = new Map<string, string>();
const DEEDS = 'keep|strike|check|undo|redo|copy|archive|put-on|hand-over';
/** What writes; what only asks, or begins work that is asked for anew, is no deed. */
const WRITES = new RegExp(
	`^/api/(preferences|rigs(/first)?|rigs/\\d+/(${DEEDS})|parts|parts/(import|take-out|take-back)|` +
		'parts/[0-9a-f]{32}/(keep|undo|redo)|jobs/(import|restore))$'
);
export const writes = (path: string): boolean => WRITES.test(path);
/** After these it is not known whether the deed was done. */
const NOT_ANSWERED = new Set([500, 502, 503, 504]);

/** A key that nobody else gives. */
export function newKey(): string {
	const bytes = crypto.getRandomValues(new Uint8Array(16));
	return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** The key of what is asked. */
export function keyOf(asked: string): string {
	const key = open.get(asked) ?? newKey();
	open.set(asked, key);
	return key;
}

/** What was asked was answered with a status. */
export function answered(asked: string, status: number): void {
	if (!NOT_ANSWERED.has(status)) open.delete(asked);
}
