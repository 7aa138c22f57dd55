/** Where `g` and a letter lead: letter, path under the rig, title. */
export const jumps: [letter: string, path: string, title: string][] = [
	['d', 'draw', 'Draw'],
	['l', 'bow-length', 'Bow length'],
	['w', 'weight', 'Weight'],
	['m', 'assembly', 'Assembly'],
	['s', 'string', 'String'],
	['b', 'brace', 'Brace'],
	['n', 'nock-point', 'Nock point'],
	['a', 'arrow', 'Arrow'],
	['q', 'quiet', 'Quiet'],
	['c', 'crawls', 'Crawls'],
	['k', 'keep', 'Logbook'],
	['e', 'schedule', 'Schedule']
];

export interface KeyDeeds {
	go(path: string): void;
	walk(step: 1 | -1): void;
	keep(): void;
	revert(): void;
	undo(): void;
	redo(): void;
	print(): void;
	units(): void;
	help(): void;
	trial(): void;
}

/** Whether a key belongs to what is being typed. */
function typing(target: EventTarget | null): boolean {
	const element = target as HTMLElement | null;
	if (!element?.closest) return false;
	if (element.closest('[role="dialog"], [role="menu"]')) return true;
	const input = element.closest('input, textarea, select') as HTMLInputElement | null;
	return input !== null && !['range', 'checkbox', 'radio'].includes(input.type);
}

/** A listener for the whole window; `g` waits for its letter. */
export function listen(deeds: KeyDeeds): (event: KeyboardEvent) => void {
	let waiting = false;
	return (event) => {
		if (event.defaultPrevented || event.altKey) return;
		const inField = typing(event.target);
		if (
			event.key === 'Escape' &&
			!(event.target as HTMLElement)?.closest?.('[role="dialog"], [role="menu"]')
		) {
			deeds.revert();
			return;
		}
		if (inField) return;
		if (event.ctrlKey || event.metaKey) {
			if (event.key.toLowerCase() !== 'z') return;
			event.preventDefault();
			if (event.shiftKey) deeds.redo();
			else deeds.undo();
			return;
		}
		if (waiting) {
			waiting = false;
			const jump = jumps.find(([letter]) => letter === event.key);
			if (jump) {
				event.preventDefault();
				deeds.go(jump[1]);
			}
			return;
		}
		const plain: Record<string, () => void> = {
			g: () => (waiting = true),
			k: deeds.keep,
			'[': () => deeds.walk(-1),
			']': () => deeds.walk(1),
			p: deeds.print,
			t: deeds.trial,
			u: deeds.units,
			'?': deeds.help
		};
		const deed = plain[event.key];
		if (deed) {
			event.preventDefault();
			deed();
		}
	};
}
