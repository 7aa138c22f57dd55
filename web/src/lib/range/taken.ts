import { api, told, type Schemas } from '$lib/api/client';

/** A rig as it is taken to the range; `old`: the server is out of reach, it is as of before. */
export interface TakenAlong {
	view: Schemas['RangeView'];
	old: boolean;
}

const PATIENCE_MS = 9000;

export async function taken(id: number): Promise<TakenAlong> {
	const asked = api.GET('/api/rigs/{id}/range', {
		params: { path: { id } },
		signal: AbortSignal.timeout(PATIENCE_MS)
	});
	const view = await told(asked);
	return { view, old: (await asked).response.headers.has('x-lyrandis-kept') };
}
