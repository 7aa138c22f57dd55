import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** Every part on the rack. */
export const load: PageLoad = async ({ depends }) => {
	depends('rack:list');
	return { parts: await told(api.GET('/api/parts')) };
};
