import { getContext, setContext } from 'svelte';

/** How much height a station has for its plate; null where nothing limits it. */
export type Room = () => number | null;

const KEY = Symbol('room');

export function putRoom(room: Room): void {
	setContext(KEY, room);
}

export function useRoom(): Room {
	return getContext<Room | undefined>(KEY) ?? (() => null);
}

/** A plate's height: as wished if there is room, and never less than its picture needs. */
export function within(room: number | null, wished: number, least: number): number {
	return room === null ? wished : Math.round(Math.min(wished, Math.max(least, room)));
}
