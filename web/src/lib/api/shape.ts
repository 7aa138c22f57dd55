/** The number of the answers' shape that these pages were built for; as in api/shape.py. */
export const SHAPE = 2;
const HEADER = 'x-lyrandis-shape';

/** Called with the first answer of another shape; nothing is read of it. */
let tell: () => void = () => {};
export function tellOfUpdate(how: () => void): void {
	tell = how;
}

/** Whether an answer is of these pages' shape; one that says none is no answer of Lyrandis. */
export function ofShape(answer: Response): boolean {
	const shape = answer.headers.get(HEADER);
	if (shape === null || Number(shape) === SHAPE) return true;
	tell();
	return false;
}
