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
	/** Why the server would not have it, and when the rig was made that it was offered to. */
	refused?: string;
	refused_on?: string;
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

/** Something kept of a rig that cannot be read: it is shown as it lies there. */
export interface Unread {
	place: string;
	text: string;
}

const isMade = (value: unknown): value is Made => {
	const made = value as Partial<Made> | null;
	return (
		typeof made === 'object' &&
		[made?.mark, made?.at, made?.said, made?.body?.station].every((v) => typeof v === 'string') &&
		[made?.rig, made?.body?.seq].every((v) => Number.isInteger(v))
	);
};

function records(rig: number): { place: string; text: string; made: Made | null }[] {
	try {
		return Object.keys(localStorage)
			.filter((place) => place.startsWith(`${PLACE}${rig}.`))
			.sort()
			.map((place) => {
				const text = localStorage.getItem(place) ?? '';
				let made: unknown = null;
				try {
					made = JSON.parse(text);
				} catch {
					// shown as it lies there
				}
				return { place, text, made: isMade(made) ? made : null };
			});
	} catch {
		return [];
	}
}

/** What is kept of a rig, the oldest first; what cannot be read hides nothing else. */
export const all = (rig: number): Made[] => records(rig).flatMap(({ made }) => made ?? []);

/** What is kept of a rig and cannot be read. */
export const unread = (rig: number): Unread[] =>
	records(rig).flatMap(({ place, text, made }) => (made ? [] : [{ place, text }]));

/** Throw away what cannot be read. */
export function drop(unread: Unread): void {
	localStorage.removeItem(unread.place);
}

/** The present time, ISO 8601. */
export const timeNow = (): string => new Date().toISOString();
