import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
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
	/** Why the server would not have it, and what data it was offered to. */
	refused?: string;
	refused_on?: string;
	/** Whether it was refused because the data there is other than it was made on. */
	other_data?: boolean;
}

/** Something kept of a rig that cannot be read: it is shown as it lies there. */
export interface Unread {
	place: string | number;
	text: string;
}

/** What is kept of a rig, the oldest first; what cannot be read hides nothing else. */
export interface Acts {
	made: Made[];
	unread: Unread[];
}

/** Where acts lie until they are handed over. */
export interface Shelf {
	/** Whether it is the browser's database; else the old place, which holds less. */
	database: boolean;
	all(rig: number): Promise<Acts>;
	/** How many wait, of every rig. */
	count(): Promise<number>;
	put(made: Made): Promise<void>;
	takeOut(mark: string): Promise<void>;
	/** Throw away what cannot be read. */
	drop(unread: Unread): Promise<void>;
}

const isMade = (value: unknown): value is Made => {
	const made = value as Partial<Made> | null;
	return (
		typeof made === 'object' &&
		[made?.mark, made?.at, made?.said, made?.body?.station].every((v) => typeof v === 'string') &&
		[made?.rig, made?.body?.seq].every((v) => Number.isInteger(v))
	);
};

// The old place: each in an item of its own.
const PLACE = 'lyrandis.made.';
const placeOf = (made: Made): string => `${PLACE}${made.rig}.${made.at}.${made.mark}`;
const oldPlaces = (): string[] =>
	Object.keys(localStorage)
		.filter((place) => place.startsWith(PLACE))
		.sort();

function parsed(text: string): Made | null {
	try {
		const value: unknown = JSON.parse(text);
		return isMade(value) ? value : null;
	} catch {
		return null;
	}
}

/** Acts in the browser's old storage. */
export const oldShelf: Shelf = {
	database: false,
	async all(rig) {
		const acts: Acts = { made: [], unread: [] };
		for (const place of oldPlaces().filter((p) => p.startsWith(`${PLACE}${rig}.`))) {
			const text = localStorage.getItem(place) ?? '';
			const made = parsed(text);
			if (made) acts.made.push(made);
			else acts.unread.push({ place, text });
		}
		return acts;
	},
	count: async () => oldPlaces().length,
	put: async (made) => localStorage.setItem(placeOf(made), JSON.stringify(made)),
	async takeOut(mark) {
		for (const place of oldPlaces()) if (place.endsWith(`.${mark}`)) localStorage.removeItem(place);
	},
	drop: async ({ place }) => localStorage.removeItem(String(place))
};

interface Kept extends DBSchema {
	acts: {
		/** Its own counter, which puts them in the order in which they were made. */
		key: number;
		value: { rig: number; mark: string; made: Made };
		indexes: { rig: number; mark: string };
	};
}

async function databaseShelf(): Promise<Shelf> {
	const db = await openDB<Kept>('lyrandis', 1, {
		upgrade(fresh) {
			const acts = fresh.createObjectStore('acts', { autoIncrement: true });
			acts.createIndex('rig', 'rig');
			acts.createIndex('mark', 'mark', { unique: true });
		}
	});
	await moveIn(db);
	return {
		database: true,
		async all(rig) {
			const found: Acts = { made: [], unread: [] };
			const tx = db.transaction('acts');
			for await (const { primaryKey, value } of tx.store.index('rig').iterate(rig)) {
				if (isMade(value.made)) found.made.push(value.made);
				else found.unread.push({ place: primaryKey, text: JSON.stringify(value.made) ?? '' });
			}
			const old = await oldShelf.all(rig);
			return { made: found.made, unread: [...old.unread, ...found.unread] };
		},
		count: async () => (await db.count('acts')) + oldPlaces().length,
		async put(made) {
			const tx = db.transaction('acts', 'readwrite');
			const key = await tx.store.index('mark').getKey(made.mark);
			const record = { rig: made.rig, mark: made.mark, made };
			await Promise.all([tx.store.put(record, key), tx.done]);
		},
		async takeOut(mark) {
			const tx = db.transaction('acts', 'readwrite');
			const key = await tx.store.index('mark').getKey(mark);
			if (key !== undefined) await tx.store.delete(key);
			await tx.done;
		},
		async drop(unread) {
			if (typeof unread.place === 'number') await db.delete('acts', unread.place);
			else await oldShelf.drop(unread);
		}
	};
}

/** What waits in the old place is moved once, in the order in which it was made. */
async function moveIn(db: IDBPDatabase<Kept>): Promise<void> {
	const old = oldPlaces().flatMap((place) => {
		const made = parsed(localStorage.getItem(place) ?? '');
		return made ? [{ place, made }] : [];
	});
	for (const { place, made } of old.toSorted((a, b) => a.made.at.localeCompare(b.made.at))) {
		if (!(await db.getKeyFromIndex('acts', 'mark', made.mark)))
			await db.add('acts', { rig: made.rig, mark: made.mark, made });
		localStorage.removeItem(place);
	}
}

let opened: Promise<Shelf> | null = null;

/** The shelf of this browser: its database, or the old place where that is refused. */
export function shelf(): Promise<Shelf> {
	opened ??= databaseShelf().catch(() => oldShelf);
	return opened;
}

/** For tests: the next shelf is opened anew. */
export const shutShelf = (): void => void (opened = null);
