import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** The archers who may ask, who does, and what they wish to pull at most [lb]. */
export const load: PageLoad = async ({ depends, url }) => {
	depends('rack:list');
	const parts = await told(api.GET('/api/parts'));
	const archers = parts.filter((line) => line.kind === 'archer');
	const asked = archers.find((line) => line.mark === url.searchParams.get('archer'));
	const most = Number(url.searchParams.get('most'));
	return { archers, archer: asked ?? archers[0] ?? null, most: most > 0 ? most : null };
};
