/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';

/*
 * What the page for the range needs while the server is out of reach:
 *
 *   the pages' own files      from here, always: their names change with what is in them
 *   a page that is opened     from the server; where it does not answer in time, from here
 *   a rig as it was last told from the server; where it does not answer in time, from here, marked
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

async function own(request: Request): Promise<Response> {
	return (await caches.match(request)) ?? fetch(request);
}

async function page(request: Request): Promise<Response> {
	try {
		return await asked(request);
	} catch (error) {
		const kept = await caches.match('/', { cacheName: PAGES });
		if (!kept) throw error;
		return kept;
	}
}

async function told(request: Request): Promise<Response> {
	const cache = await caches.open(TOLD);
	try {
		const answer = await asked(request);
		if (answer.ok) await cache.put(request, answer.clone());
		return answer;
	} catch (error) {
		const kept = await cache.match(request);
		if (!kept) throw error;
		const headers = new Headers(kept.headers);
		headers.set(MARKED, '1');
		return new Response(kept.body, { status: kept.status, headers });
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
