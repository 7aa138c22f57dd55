import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** Every rig, for the first page. */
export const load: PageLoad = async ({ depends }) => {
	depends('rigs:list');
	return { rigs: await told(api.GET('/api/rigs')) };
};
