import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** The latest page of the rig's logbook. */
export const load: PageLoad = async ({ params, depends, parent }) => {
	depends('rig:kept');
	// A rig that cannot be opened says so in the frame's place.
	if ((await parent()).shut !== null) return { lines: [] };
	const path = { id: Number(params.id) };
	return { lines: await told(api.GET('/api/rigs/{id}/history', { params: { path } })) };
};
