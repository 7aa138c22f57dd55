/** A day (YYYY-MM-DD, or the start of a longer ISO time) in words. */
export function day(text: string, style: 'short' | 'long' | 'weekday' = 'short'): string {
	return new Date(`${text.slice(0, 10)}T12:00`).toLocaleDateString('en-GB', {
		weekday: style === 'weekday' ? 'short' : undefined,
		day: 'numeric',
		month: style === 'short' ? 'short' : 'long',
		year: 'numeric'
	});
}
