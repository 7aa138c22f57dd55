import { reference } from '$lib/bench/reference.svelte';
import type { ApiProblem } from '$lib/api/client';
import type { LayoutLoad } from './$types';

const TITLES: Record<number, string> = { 401: 'Not let in', 429: 'Too many tries' };

export const ssr = false;
export const prerender = false;

/** What every page needs once: units, fields, the route, the preferences. */
export const load: LayoutLoad = async () => {
	try {
		if (!reference.catalog) await reference.load();
		return { silent: null };
	} catch (error) {
		const { status, message } = error as ApiProblem;
		return { silent: { title: TITLES[status] ?? 'Lyrandis does not answer', said: message } };
	}
};
