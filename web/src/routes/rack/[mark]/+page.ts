import { api, told } from '$lib/api/client';
import type { PageLoad } from './$types';

/** A part with its story. */
export const load: PageLoad = async ({ params, depends }) => {
	depends('rack:part');
	const path = { mark: params.mark };
	return { view: await told(api.GET('/api/parts/{mark}', { params: { path } })) };
};
