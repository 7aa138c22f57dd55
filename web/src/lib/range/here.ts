/** The rigs that were taken to the range on this device, and whether their pages work out of reach. */
export interface Here {
	id: number;
	name: string;
	/** When it was last open here, ISO 8601. */
	at: string;
}

const PLACE = 'lyrandis.range';

const isHere = (value: unknown): value is Here => {
	const here = value as Partial<Here> | null;
	return (
		Number.isInteger(here?.id) && typeof here?.name === 'string' && typeof here.at === 'string'
	);
};

/** The rigs taken here, the latest first. */
export function rigsHere(): Here[] {
	try {
		const kept: unknown = JSON.parse(localStorage.getItem(PLACE) ?? '[]');
		return Array.isArray(kept) ? kept.filter(isHere) : [];
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

/** ready: the page opens without the server; only_open: it works while it stays open; late: the
 * browser did not keep it in time. */
export type Readiness = 'asking' | 'ready' | 'only_open' | 'late';
const PATIENCE_MS = 20_000;

/** Have what a rig's page needs kept by the browser, so that it opens without the server. */
export async function makeReady(id: number): Promise<Readiness> {
	const workers = navigator.serviceWorker as ServiceWorkerContainer | undefined;
	if (!workers) return 'only_open'; // the address is not a secure one
	const late = new Promise<Readiness>((done) => setTimeout(() => done('late'), PATIENCE_MS));
	return Promise.race([kept(workers, id).catch((): Readiness => 'only_open'), late]);
}

async function kept(workers: ServiceWorkerContainer, id: number): Promise<Readiness> {
	await workers.register('/service-worker.js');
	await workers.ready;
	if (!workers.controller)
		await new Promise((done) => workers.addEventListener('controllerchange', done, { once: true }));
	const wanted = ['/api/catalog', '/api/preferences', `/api/rigs/${id}/range`];
	const answers = await Promise.all(wanted.map((path) => fetch(path)));
	if (!(await navigator.storage?.persisted?.())) await navigator.storage?.persist?.();
	return answers.every((answer) => answer.ok) ? 'ready' : 'only_open';
}
