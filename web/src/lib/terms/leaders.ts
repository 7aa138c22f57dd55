/** Where a drawing's words stand: rows above and below it, each word led to its part. */
export interface Word {
	id: string;
	text: string;
	/** What it is led to, in pixels. */
	x: number;
	y: number;
}
export interface Placed extends Word {
	/** The middle of the word. */
	at: number;
	row: 'above' | 'below';
}

const LETTER = 6.6;
const GAP = 16;

const wide = (word: Word): number => word.text.length * LETTER;

/** Words of one row beside one another in their order, as near to their parts as they can be. */
function spread(words: Word[], left: number, right: number): number[] {
	const at = words.map((w) => Math.min(Math.max(w.x, left + wide(w) / 2), right - wide(w) / 2));
	const apart = (i: number) => (wide(words[i - 1]!) + wide(words[i]!)) / 2 + GAP;
	for (let i = 1; i < at.length; i++) at[i] = Math.max(at[i]!, at[i - 1]! + apart(i));
	let end = right;
	for (let i = at.length - 1; i >= 0; i--) {
		at[i] = Math.min(at[i]!, end - wide(words[i]!) / 2);
		end = at[i]! - wide(words[i]!) / 2 - GAP;
	}
	return at;
}

/** Every word in the row nearer to its part while that has room; null where they do not fit. */
export function leaders(
	words: Word[],
	left: number,
	right: number,
	middle: number
): Placed[] | null {
	const inOrder = [...words].sort((a, b) => a.x - b.x || a.y - b.y);
	const rows = { above: [] as Word[], below: [] as Word[] };
	const used = { above: 0, below: 0 };
	for (const word of inOrder) {
		const near = word.y < middle ? 'above' : 'below';
		const far = near === 'above' ? 'below' : 'above';
		const row = used[near] + wide(word) <= right - left ? near : far;
		rows[row].push(word);
		used[row] += wide(word) + GAP;
	}
	if (Math.max(used.above, used.below) - GAP > right - left) return null;
	return (['above', 'below'] as const).flatMap((row) => {
		const at = spread(rows[row], left, right);
		return rows[row].map((word, i) => ({ ...word, row, at: at[i]! }));
	});
}
