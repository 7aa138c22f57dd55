import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** The rigs that can stand beside this one, and the days of it. */
export const load: PageLoad = async ({ params, depends, parent }) => {
	depends('rig:kept');
	if ((await parent()).shut !== null) return { rigs: [], days: [] };
	const path = { id: Number(params.id) };
	const [rigs, days] = await Promise.all([
		told(api.GET('/api/rigs')),
		told(api.GET('/api/rigs/{id}/days', { params: { path } }))
	]);
	return { rigs, days };
};
