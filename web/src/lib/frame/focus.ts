/** Give the keyboard a place when the control it stood on has gone from the page. */
export function refocus(to: HTMLElement | undefined): void {
	if (document.activeElement === null || document.activeElement === document.body) to?.focus();
}
