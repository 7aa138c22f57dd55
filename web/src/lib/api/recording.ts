import { problemOf, type Schemas } from './client';

/** A take of the simulated recorder beside this rig, as a WAV file. */
export async function recording(
	rig: number,
	query: Record<string, string | number>,
	signal?: AbortSignal
): Promise<File> {
	const words = new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]));
	const answer = await fetch(`/api/rigs/${rig}/recording?${words}`, { signal });
	if (answer.ok) return new File([await answer.blob()], 'shots.wav');
	throw problemOf(answer.status, (await answer.json()) as Schemas['ProblemDetails']);
}
