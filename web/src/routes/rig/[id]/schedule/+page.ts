import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** What is due on the rig, the nearest first. */
export const load: PageLoad = async ({ params, depends, parent }) => {
	depends('rig:kept');
	// A rig that cannot be opened says so in the frame's place.
	if ((await parent()).shut !== null) return { items: [] };
	const path = { id: Number(params.id) };
	return { items: await told(api.GET('/api/rigs/{id}/schedule', { params: { path } })) };
};
