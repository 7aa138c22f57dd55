/** The place in a table, in rising or any order, of the value nearest to a wanted one. */
export function nearest(table: readonly number[], wanted: number): number {
	let best = 0;
	for (let i = 1; i < table.length; i++)
		if (Math.abs(table[i]! - wanted) < Math.abs(table[best]! - wanted)) best = i;
	return best;
}
