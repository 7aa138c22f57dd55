import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** Two parts of a kind side by side, on the rig that has one of them on. */
export const load: PageLoad = async ({ url }) => {
	const parts = await told(api.GET('/api/parts'));
	const mine = parts.find((p) => p.mark === url.searchParams.get('mine')) ?? null;
	const alike = parts.filter((p) => p.kind === mine?.kind && p.mark !== mine.mark);
	const wanted = url.searchParams.get('other');
	const other = alike.find((p) => p.mark === wanted) ?? alike[0] ?? null;
	if (!mine || !other) return { mine, other: null, alike, view: null };
	const body = { mine: { part: mine.mark }, other: { part: other.mark } };
	return { mine, other, alike, view: await told(api.POST('/api/beside', { body })) };
};
