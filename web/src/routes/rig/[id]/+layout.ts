import { error as missing } from '@sveltejs/kit';
import { RigBench } from '$lib/bench/bench.svelte';
import { reference } from '$lib/bench/reference.svelte';
import type { LayoutLoad } from './$types';

let open: RigBench | null = null;

/** The rig on the bench with the numbers of the station that is asked for; or why not. */
export const load: LayoutLoad = async ({ params, url, parent, depends }) => {
	depends('rig:open');
	await parent();
	if (!/^[1-9]\d{0,15}$/.test(params.id)) missing(404, 'No rig has that number');
	const id = Number(params.id);
	const place = url.pathname.split('/')[3];
	const station = reference.catalog?.stations.some((s) => s.id === place) ? (place ?? null) : null;
	try {
		if (open?.id === id && !open.shut) await open.show(station);
		else open = await RigBench.open(id, station);
		return { bench: open, shut: null };
	} catch (error) {
		open = null;
		return { bench: null, shut: (error as Error).message };
	}
};
