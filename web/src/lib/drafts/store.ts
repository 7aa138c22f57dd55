import { folder } from '$lib/api/folder';
import { newKey } from '$lib/api/once';

/*
 * What is typed and not logged yet, in this browser, each in an item of its own:
 *
 *   lyrandis.draft.<folder>.<rig>.<form>.<window>
 *
 * A window writes only its own. What a window that is gone left is taken over by the next that
 * opens the form; what a window that is open holds is left to it.
 */
const PLACE = 'lyrandis.draft.';
const CHANNEL = 'lyrandis.windows';
const PATIENCE_MS = 120;

/** What was typed into a form, and when. */
export interface Typed {
	/** When something was typed last, ISO 8601. */
	at: string;
	/** The rig's latest entry then; null where it belongs to no rig. */
	seq: number | null;
	fields: Record<string, unknown>;
}

/** A form's place: of which rig (or `new`, or `rack`), and which form. */
export interface Place {
	rig: string;
	form: string;
}

/** This window, until its page is loaded anew. */
export const mine = newKey();
const under = ({ rig, form }: Place): string => `${PLACE}${folder()?.id ?? 'here'}.${rig}.${form}.`;

function read(key: string): Typed | null {
	try {
		const typed = JSON.parse(localStorage.getItem(key) ?? 'null') as Partial<Typed> | null;
		if (typeof typed?.at !== 'string' || typeof typed.fields !== 'object' || !typed.fields)
			return null;
		return { at: typed.at, seq: typed.seq ?? null, fields: typed.fields };
	} catch {
		return null;
	}
}

/** What this window left there. */
export const own = (place: Place): Typed | null => read(under(place) + mine);

/** Keep what is typed; whether the browser keeps it. */
export function save(place: Place, typed: Typed): boolean {
	try {
		localStorage.setItem(under(place) + mine, JSON.stringify(typed));
		return true;
	} catch {
		return false;
	}
}

export function remove(place: Place, window = mine): void {
	try {
		localStorage.removeItem(under(place) + window);
	} catch {
		// what was never kept need not be removed
	}
}

/** Every key that begins so; none where the browser's storage is shut. */
function keys(start: string): string[] {
	try {
		return Object.keys(localStorage).filter((key) => key.startsWith(start));
	} catch {
		return [];
	}
}

/** What other windows left there, the latest first. */
export function others(place: Place): { window: string; typed: Typed }[] {
	const start = under(place);
	return keys(start)
		.filter((key) => key !== start + mine)
		.flatMap((key) => {
			const typed = read(key);
			return typed ? [{ window: key.slice(start.length), typed }] : [];
		})
		.sort((a, b) => b.typed.at.localeCompare(a.typed.at));
}

/** Drop all of them, as a device is signed out. */
export function dropAll(): void {
	for (const key of keys(PLACE)) localStorage.removeItem(key);
}

const channel = typeof BroadcastChannel === 'function' ? new BroadcastChannel(CHANNEL) : null;
const answered = new EventTarget();
if (channel)
	channel.onmessage = ({ data }: MessageEvent<{ asks?: string; lives?: string }>) => {
		if (data.asks === mine) channel.postMessage({ lives: mine });
		if (data.lives) answered.dispatchEvent(new Event(data.lives));
	};

/** Whether another window is open still. */
export function lives(window: string): Promise<boolean> {
	return new Promise((done) => {
		answered.addEventListener(window, () => done(true), { once: true });
		setTimeout(() => done(false), PATIENCE_MS);
		channel?.postMessage({ asks: window });
	});
}
