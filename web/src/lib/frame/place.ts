/** Where one is on a page: a new one begins at its top with its question; going back, where it was. */

const PATIENCE_MS = 8000; // what the page shows may have to come first
const column = (): HTMLElement | null => document.querySelector('main');

/** How far the page's column is scrolled [px]; what scrolls with the document the browser knows. */
export function scrolled(): number {
	return column()?.scrollTop ?? 0;
}

/** Scroll to where it was, as soon as the page is as long again; a hand that scrolls wins. */
export function scrollBack(top: number): void {
	const end = new AbortController();
	const grown = new ResizeObserver(go);
	const over = setTimeout(() => end.abort(), PATIENCE_MS);
	end.signal.addEventListener('abort', () => {
		grown.disconnect();
		clearTimeout(over);
	});
	for (const hand of ['wheel', 'touchstart', 'keydown', 'pointerdown'])
		addEventListener(hand, () => end.abort(), { signal: end.signal });
	function go(): void {
		// The page may have been put in the place of the one that was left.
		const now = column();
		if (!now) return;
		for (const part of [now, ...now.children]) grown.observe(part);
		now.scrollTop = top;
		if (Math.abs(now.scrollTop - top) < 2) end.abort();
	}
	go();
}

/** Begin a new page: at its top, with the focus on its question. */
export function begin(): void {
	const main = column();
	if (main) main.scrollTop = 0;
	const question = main?.querySelector<HTMLElement>('h1') ?? main;
	if (!question) return;
	question.tabIndex = -1;
	question.focus({ preventScroll: true });
}
