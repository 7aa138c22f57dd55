import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** The archers who may ask, and who does. */
export const load: PageLoad = async ({ depends, url }) => {
	depends('rack:list');
	const parts = await told(api.GET('/api/parts'));
	const archers = parts.filter((line) => line.kind === 'archer');
	const asked = archers.find((line) => line.mark === url.searchParams.get('archer'));
	return { archers, archer: asked ?? archers[0] ?? null };
};
