import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** The logbook of the rig, the latest first. */
export const load: PageLoad = async ({ params, depends }) => {
	depends('rig:kept');
	const path = { id: Number(params.id) };
	return { lines: await told(api.GET('/api/rigs/{id}/history', { params: { path } })) };
};
