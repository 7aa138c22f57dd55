import { ApiProblem, told } from './client';

/** Send one file; the answer, or an ApiProblem that names the file and the place of the fault. */
export async function upload<T>(path: string, file: File): Promise<T> {
	const body = new FormData();
	body.append('file', file);
	const sent = fetch(path, { method: 'POST', body }).then(async (response) => {
		const read: unknown = await response.json();
		return response.ok ? { data: read as T, response } : { error: read, response };
	});
	try {
		return await told<T>(sent);
	} catch (error) {
		const problem = error as ApiProblem;
		const place = problem.errors[0]?.field;
		const where = place && !problem.message.toLowerCase().includes(place) ? ` (at ${place})` : '';
		throw new ApiProblem(
			problem.status,
			`${file.name}: ${problem.message}${where}`,
			problem.errors
		);
	}
}
