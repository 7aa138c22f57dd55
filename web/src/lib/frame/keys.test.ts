import { beforeEach, describe, expect, it, vi } from 'vitest';
import { jumps, listen, type KeyDeeds } from './keys';

const deeds = {
	go: vi.fn(),
	walk: vi.fn(),
	keep: vi.fn(),
	revert: vi.fn(),
	undo: vi.fn(),
	redo: vi.fn(),
	print: vi.fn(),
	trial: vi.fn(),
	units: vi.fn(),
	help: vi.fn(),
	terms: vi.fn(),
	home: vi.fn()
} satisfies KeyDeeds;
let hear: (event: KeyboardEvent) => void;

function press(key: string, target: HTMLElement = document.body, more: KeyboardEventInit = {}) {
	const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
	Object.defineProperty(event, 'target', { value: target });
	hear(event);
	return event;
}

function inside(html: string, selector: string): HTMLElement {
	document.body.innerHTML = html;
	return document.querySelector(selector) as HTMLElement;
}

beforeEach(() => {
	vi.clearAllMocks();
	hear = listen(() => deeds);
});

describe('keys', () => {
	it.each([
		['k', 'keep'],
		['p', 'print'],
		['u', 'units'],
		['?', 'help'],
		['Escape', 'revert']
	] as const)('%s does %s', (key, deed) => {
		press(key);
		expect(deeds[deed]).toHaveBeenCalledOnce();
	});

	it('walks the route both ways', () => {
		press(']');
		press('[');
		expect(deeds.walk.mock.calls).toEqual([[1], [-1]]);
	});

	it.each(jumps)('g %s goes to %s', (letter, path) => {
		press('g');
		press(letter);
		expect(deeds.go).toHaveBeenCalledWith(path);
		press(letter);
		expect(deeds.go).toHaveBeenCalledOnce();
	});

	it('forgets g after a letter that leads nowhere', () => {
		press('g');
		press('z');
		press('k');
		expect(deeds.go).not.toHaveBeenCalled();
		expect(deeds.keep).toHaveBeenCalledOnce();
	});

	it('takes back and does again', () => {
		press('z', document.body, { ctrlKey: true });
		press('Z', document.body, { ctrlKey: true, shiftKey: true });
		expect(deeds.undo).toHaveBeenCalledOnce();
		expect(deeds.redo).toHaveBeenCalledOnce();
	});

	it('leaves letters to who is typing, but not Escape', () => {
		const field = inside('<input type="text" />', 'input');
		press('k', field);
		press('z', field, { ctrlKey: true });
		press('Escape', field);
		expect(deeds.keep).not.toHaveBeenCalled();
		expect(deeds.undo).not.toHaveBeenCalled();
		expect(deeds.revert).toHaveBeenCalledOnce();
	});

	it('works from a slider and a checkbox', () => {
		press('k', inside('<input type="range" />', 'input'));
		press('k', inside('<input type="checkbox" />', 'input'));
		expect(deeds.keep).toHaveBeenCalledTimes(2);
	});

	it('leaves everything to an open dialog', () => {
		const button = inside('<div role="dialog"><button>x</button></div>', 'button');
		press('Escape', button);
		press('k', button);
		expect(deeds.revert).not.toHaveBeenCalled();
		expect(deeds.keep).not.toHaveBeenCalled();
	});

	it('does not take keys that belong to the browser', () => {
		press('k', document.body, { ctrlKey: true });
		press('k', document.body, { altKey: true });
		expect(deeds.keep).not.toHaveBeenCalled();
	});

	it('keep from inside a field by a chord, and leave a dialog alone', () => {
		press('Enter', inside('<input />', 'input'), { ctrlKey: true });
		expect(deeds.keep).toHaveBeenCalledOnce();
		press('Enter', inside('<div role="dialog"><input /></div>', 'input'), { ctrlKey: true });
		expect(deeds.keep).toHaveBeenCalledOnce();
	});

	it('do on a page only what the page can', () => {
		hear = listen(() => ({ help: deeds.help, terms: deeds.terms }));
		for (const key of ['k', '[', 't', 'p', 'g', 'd']) press(key);
		expect(deeds.go).not.toHaveBeenCalled();
		press('g');
		press('t');
		expect(deeds.terms).toHaveBeenCalledOnce();
		press('?');
		expect(deeds.help).toHaveBeenCalledOnce();
	});

	it('find brackets behind AltGr', () => {
		const event = new KeyboardEvent('keydown', { key: ']', altKey: true, ctrlKey: true });
		Object.defineProperty(event, 'getModifierState', { value: (m: string) => m === 'AltGraph' });
		Object.defineProperty(event, 'target', { value: document.body });
		hear(event);
		expect(deeds.walk).toHaveBeenCalledWith(1);
	});
});
