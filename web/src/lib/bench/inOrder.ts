/** Does deeds one after another, in the order in which they were asked; each tells its own faults. */
export function inOrder(): (deed: () => Promise<void>) => Promise<void> {
	let last: Promise<void> = Promise.resolve();
	return (deed) => (last = last.then(deed));
}
