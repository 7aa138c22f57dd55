import { terms } from '$lib/terms/terms.svelte';
import type { PageLoad } from './$types';

/** The words come with the page, so that a link to one of them finds its place. */
export const load: PageLoad = async ({ parent }) => {
	await parent();
	await terms.load();
};
