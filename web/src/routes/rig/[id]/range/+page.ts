import { error as missing } from '@sveltejs/kit';
import { shelf } from '$lib/range/shelf';
import { taken } from '$lib/range/taken';
import type { PageLoad } from './$types';

/** A rig as it is taken to the range; from this browser's keeping where the server is out of reach. */
export const load: PageLoad = async ({ params, parent }) => {
	await parent();
	if (!/^[1-9]\d{0,15}$/.test(params.id)) missing(404, 'No rig has that number');
	const id = Number(params.id);
	const kept = await shelf();
	const acts = await kept.all(id).catch(() => ({ made: [], unread: [] }));
	try {
		return { id, shelf: kept, acts, ...(await taken(id)), problem: null };
	} catch (error) {
		const problem = (error as Error).message;
		return { id, shelf: kept, acts, view: null, old: false, problem };
	}
};
