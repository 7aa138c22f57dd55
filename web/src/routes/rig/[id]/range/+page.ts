import { error as missing } from '@sveltejs/kit';
import { taken } from '$lib/range/taken';
import type { PageLoad } from './$types';

/** A rig as it is taken to the range; from this browser's keeping where the server is out of reach. */
export const load: PageLoad = async ({ params, parent }) => {
	await parent();
	if (!/^[1-9]\d{0,15}$/.test(params.id)) missing(404, 'No rig has that number');
	try {
		return { id: Number(params.id), ...(await taken(Number(params.id))), problem: null };
	} catch (error) {
		const problem = (error as Error).message;
		return { id: Number(params.id), view: null, old: false, problem };
	}
};
