/** The rigs that were taken to the range on this device, and whether their pages work out of reach. */
export interface Here {
	id: number;
	name: string;
	/** When it was last open here, ISO 8601. */
	at: string;
}

const PLACE = 'lyrandis.range';

/** The rigs taken here, the latest first. */
export function rigsHere(): Here[] {
	try {
		return JSON.parse(localStorage.getItem(PLACE) ?? '[]') as Here[];
	} catch {
		return [];
	}
}

function keep(rigs: Here[]): void {
	try {
		localStorage.setItem(PLACE, JSON.stringify(rigs));
	} catch {
		// then it is found by its address only
	}
}

/** Note that a rig's page was opened here. */
export function opened(id: number, name: string): void {
	const others = rigsHere().filter((rig) => rig.id !== id);
	keep([{ id, name, at: new Date().toISOString() }, ...others]);
}

/** Forget a rig here: what is kept on the server stays. */
export async function forget(id: number): Promise<void> {
	keep(rigsHere().filter((rig) => rig.id !== id));
	localStorage.removeItem(`lyrandis.unlogged.${id}`);
	if ('caches' in window) await (await caches.open('told')).delete(`/api/rigs/${id}/range`);
}

/** ready: the page opens without the server; only_open: it works while it stays open. */
export type Readiness = 'asking' | 'ready' | 'only_open';

/** Have what a rig's page needs kept by the browser, so that it opens without the server. */
export async function makeReady(id: number): Promise<Readiness> {
	const workers = navigator.serviceWorker as ServiceWorkerContainer | undefined;
	if (!workers) return 'only_open'; // the address is not a secure one
	try {
		await workers.register('/service-worker.js');
		await workers.ready;
		if (!workers.controller)
			await new Promise((done) =>
				workers.addEventListener('controllerchange', done, { once: true })
			);
		const wanted = ['/api/catalog', '/api/preferences', `/api/rigs/${id}/range`];
		const answers = await Promise.all(wanted.map((path) => fetch(path)));
		if (!(await navigator.storage?.persisted?.())) await navigator.storage?.persist?.();
		return answers.every((answer) => answer.ok) ? 'ready' : 'only_open';
	} catch {
		return 'only_open';
	}
}
