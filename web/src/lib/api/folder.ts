/** The data folder that the server serves: `id.generation`, as its answers say. */
const HEADER = 'x-lyrandis-folder';

export interface Folder {
	/** Its own for good. */
	id: string;
	/** It goes up whenever data came from elsewhere. */
	generation: number;
}

let now: Folder | null = null;

/** Note what an answer says; one that says nothing changes nothing. */
export function noteFolder(answer: Response): void {
	const [id, generation] = answer.headers.get(HEADER)?.split('.') ?? [];
	if (id && generation) now = { id, generation: Number(generation) };
}

/** As the latest answer said; null before the first. */
export const folder = (): Folder | null => now;
