import type { Schemas } from '$lib/api/client';

/** What was made at the range and is not in the logbook yet. */
export interface Made {
	/** Its own for good: sent twice it is kept once. */
	mark: string;
	rig: number;
	/** When it was made, ISO 8601. */
	at: string;
	/** In words, as it was shown when it was made. */
	said: string;
	/** What the settings that it changes were before. */
	was: Record<string, unknown>;
	body: Omit<Schemas['HandOverIn'], 'mark'>;
	/** Left out by its archer: it is not handed over unless it is taken in again. */
	left?: boolean;
	/** Why the server would not have it. */
	refused?: string;
}

// Each in a place of its own: two windows never write over each other.
const PLACE = 'lyrandis.made.';
const placeOf = (made: Made): string => `${PLACE}${made.rig}.${made.at}.${made.mark}`;

/** Put it into this browser's keeping; whether the browser keeps it. */
export function put(made: Made): boolean {
	try {
		localStorage.setItem(placeOf(made), JSON.stringify(made));
		return true;
	} catch {
		return false;
	}
}

export function takeOut(made: Made): void {
	try {
		localStorage.removeItem(placeOf(made));
	} catch {
		// what was never kept need not be taken out
	}
}

/** What is kept of a rig, the oldest first. */
export function all(rig: number): Made[] {
	try {
		return Object.keys(localStorage)
			.filter((key) => key.startsWith(`${PLACE}${rig}.`))
			.sort()
			.map((key) => JSON.parse(localStorage.getItem(key) ?? '') as Made);
	} catch {
		return [];
	}
}

/** A mark that nobody else gives. */
export function newMark(): string {
	const bytes = crypto.getRandomValues(new Uint8Array(16));
	return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** The present time, ISO 8601. */
export const timeNow = (): string => new Date().toISOString();
