/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';

/*
 * What the page for the range needs while the server is out of reach:
 *
 *   the pages' own files      from here, always: their names change with what is in them
 *   a page that is opened     from the server; where it does not answer in time, or lets nobody
 *                             in, from here
 *   a rig as it was last told the same, and marked
 *   everything else           from the server only
 */
const worker = globalThis as unknown as ServiceWorkerGlobalScope;
const PAGES = `pages-${version}`;
const TOLD = 'told';
const MARKED = 'x-lyrandis-kept';
const PATIENCE_MS = 4000;
const KEPT = /^\/api\/(catalog|preferences|rigs\/\d+\/range)$/;
// Every browser that knows workers reads the smaller of the two kinds of font file.
const OWN = new Set([...build, ...files].filter((path) => !path.endsWith('.woff')));

worker.addEventListener('install', (event) => {
	event.waitUntil(caches.open(PAGES).then((cache) => cache.addAll(['/', ...OWN])));
});

worker.addEventListener('activate', (event) => {
	event.waitUntil(
		(async () => {
			for (const name of await caches.keys())
				if (name.startsWith('pages-') && name !== PAGES) await caches.delete(name);
			await worker.clients.claim();
		})()
	);
});

/** The server's answer; an error where it does not come in time. */
function asked(request: Request): Promise<Response> {
	const late = new Promise<never>((_, fail) =>
		setTimeout(() => fail(new Error('no answer in time')), PATIENCE_MS)
	);
	return Promise.race([fetch(request), late]);
}

/** Who is not let in, or asks too often, or meets a fault, goes on with what is kept here. */
const shut = (answer: Response): boolean =>
	answer.status === 401 || answer.status === 429 || answer.status >= 500;

async function own(request: Request): Promise<Response> {
	return (await caches.match(request)) ?? fetch(request);
}

async function page(request: Request): Promise<Response> {
	const kept = () => caches.match('/', { cacheName: PAGES });
	try {
		const answer = await asked(request);
		return shut(answer) ? ((await kept()) ?? answer) : answer;
	} catch (error) {
		const page = await kept();
		if (!page) throw error;
		return page;
	}
}

async function told(request: Request): Promise<Response> {
	const cache = await caches.open(TOLD);
	/** As it was told before, marked with what the server says now; 0 where it says nothing. */
	async function before(status: number): Promise<Response | null> {
		const kept = await cache.match(request);
		if (!kept) return null;
		const headers = new Headers(kept.headers);
		headers.set(MARKED, String(status));
		return new Response(kept.body, { status: kept.status, headers });
	}
	try {
		const answer = await asked(request);
		if (answer.ok) await cache.put(request, answer.clone());
		return shut(answer) ? ((await before(answer.status)) ?? answer) : answer;
	} catch (error) {
		const kept = await before(0);
		if (!kept) throw error;
		return kept;
	}
}

worker.addEventListener('fetch', (event) => {
	const { request } = event;
	const url = new URL(request.url);
	if (request.method !== 'GET' || url.origin !== location.origin) return;
	if (OWN.has(url.pathname)) event.respondWith(own(request));
	else if (KEPT.test(url.pathname)) event.respondWith(told(request));
	else if (request.mode === 'navigate' && !url.pathname.startsWith('/api/'))
		event.respondWith(page(request));
});
