import { api, ApiProblem, told, type Schemas } from '$lib/api/client';

/** A rig as it is taken to the range; `old`: it is as of before, the server tells nothing now. */
export interface TakenAlong {
	view: Schemas['RangeView'];
	old: boolean;
	/** Why it is old: what the server answers; 0 where it is out of reach. */
	status: number;
}

const PATIENCE_MS = 9000;

export async function taken(id: number): Promise<TakenAlong> {
	const asked = api.GET('/api/rigs/{id}/range', {
		params: { path: { id } },
		signal: AbortSignal.timeout(PATIENCE_MS)
	});
	const view = await told(asked);
	const kept = (await asked).response.headers.get('x-lyrandis-kept');
	return { view, old: kept !== null, status: Number(kept ?? 200) };
}

const NOT_IN = 'This device is not let in: open an invitation on it.';
const FAULT = 'Lyrandis answers, but not with this rig.';

/** What is said where the server tells nothing now. */
export function silence(status: number): ApiProblem {
	if (status === 401) return new ApiProblem(status, NOT_IN);
	return new ApiProblem(status, status ? FAULT : 'Lyrandis is out of reach.');
}
