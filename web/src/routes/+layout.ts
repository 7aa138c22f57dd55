import { reference } from '$lib/bench/reference.svelte';
import type { LayoutLoad } from './$types';

export const ssr = false;
export const prerender = false;

/** What every page needs once: units, fields, the route, the preferences. */
export const load: LayoutLoad = async () => {
	try {
		if (!reference.catalog) await reference.load();
		return { silent: null };
	} catch (error) {
		return { silent: (error as Error).message };
	}
};
