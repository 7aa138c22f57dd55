import { dropAll } from '$lib/drafts/store';

/** What a device that was signed out keeps no more: drafts, and rigs as they were told. */
const TOLD = 'told';

export async function leaveNothing(): Promise<void> {
	dropAll();
	if ('caches' in window) await caches.delete(TOLD);
}
