import { problemOf, type Schemas } from './client';

/** A take of the simulated recorder beside this rig, as a WAV file. */
export async function recording(
	rig: number,
	query: Record<string, string | number>,
	signal?: AbortSignal
): Promise<File> {
	const words = new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]));
	const answer = await fetch(`/api/rigs/${rig}/recording?${words}`, { signal });
	return new File([await blobOf(answer)], 'shots.wav');
}

/** What was sent, or an ApiProblem. */
export async function blobOf(answer: Response): Promise<Blob> {
	if (answer.ok) return answer.blob();
	throw problemOf(answer.status, (await answer.json()) as Schemas['ProblemDetails']);
}
