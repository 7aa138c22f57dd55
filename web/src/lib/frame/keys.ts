/** Where `g` and a letter lead: letter, path under the rig, title. */
export const jumps: [letter: string, path: string, title: string][] = [
	['d', 'draw', 'Draw'],
	['l', 'bow-length', 'Bow length'],
	['w', 'weight', 'Weight'],
	['m', 'assembly', 'Assembly'],
	['s', 'string', 'String'],
	['r', 'tiller', 'Tiller'],
	['i', 'in-line', 'In line'],
	['p', 'centre-shot', 'Centre shot'],
	['v', 'weights', 'Weights'],
	['f', 'final-tiller', 'Final tiller'],
	['b', 'brace', 'Brace'],
	['n', 'nock-point', 'Nock point'],
	['a', 'arrow', 'Arrow'],
	['o', 'flight', 'Flight'],
	['q', 'quiet', 'Quiet'],
	['c', 'crawls', 'Aim'],
	['k', 'keep', 'Logbook'],
	['e', 'schedule', 'Schedule'],
	['x', 'beside', 'Side by side'],
	['j', 'range', 'At the range']
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
	terms(): void;
	home(): void;
}

const OWN = '[role="dialog"], [role="menu"]';

/** Whether a key belongs to what is being typed. */
function typing(target: EventTarget | null): boolean {
	const element = target as HTMLElement | null;
	if (!element?.closest) return false;
	if (element.closest(OWN)) return true;
	const input = element.closest('input, textarea, select') as HTMLInputElement | null;
	return input !== null && !['range', 'checkbox', 'radio'].includes(input.type);
}

/** A listener for the whole window; `g` waits for its letter. A deed that a page lacks is not done. */
export function listen(asked: () => Partial<KeyDeeds>): (event: KeyboardEvent) => void {
	let waiting = false;
	return (event) => {
		// Brackets need AltGr on many keyboards.
		const third = event.getModifierState?.('AltGraph') ?? false;
		if (event.defaultPrevented || (event.altKey && !third)) return;
		const deeds = asked();
		const inOwn = (event.target as HTMLElement)?.closest?.(OWN);
		if (event.key === 'Escape') {
			if (!inOwn) deeds.revert?.();
			return;
		}
		if ((event.ctrlKey || event.metaKey) && !third) {
			// From inside a field too: what was typed is read first.
			if (event.key === 'Enter' && !inOwn && deeds.keep) {
				event.preventDefault();
				deeds.keep();
			}
			if (event.key.toLowerCase() !== 'z' || typing(event.target)) return;
			const deed = event.shiftKey ? deeds.redo : deeds.undo;
			if (!deed) return;
			event.preventDefault();
			deed();
			return;
		}
		if (typing(event.target)) return;
		if (waiting) {
			waiting = false;
			const jump = deeds.go && jumps.find(([letter]) => letter === event.key);
			const deed = { t: deeds.terms, h: deeds.home }[event.key];
			if (!jump && !deed) return;
			event.preventDefault();
			if (jump) deeds.go?.(jump[1]);
			else deed?.();
			return;
		}
		const plain: Record<string, (() => void) | undefined> = {
			g: () => (waiting = true),
			k: deeds.keep,
			'[': deeds.walk && (() => deeds.walk?.(-1)),
			']': deeds.walk && (() => deeds.walk?.(1)),
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
