/** A day (YYYY-MM-DD, or the start of a longer ISO time) in words. */
export function day(text: string, style: 'short' | 'long' | 'weekday' = 'short'): string {
	return new Date(`${text.slice(0, 10)}T12:00`).toLocaleDateString('en-GB', {
		weekday: style === 'weekday' ? 'short' : undefined,
		day: 'numeric',
		month: style === 'short' ? 'short' : 'long',
		year: 'numeric'
	});
}

/** The day here (YYYY-MM-DD), as the archer's calendar has it. */
export function today(): string {
	const now = new Date();
	const two = (n: number) => String(n).padStart(2, '0');
	return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/** The present time, ISO 8601. */
export const timeNow = (): string => new Date().toISOString();
