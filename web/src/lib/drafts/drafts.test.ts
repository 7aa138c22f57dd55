import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { noteFolder } from '$lib/api/folder';
import HoldTest from '$lib/controls/HoldTest.svelte';
import WalkBack from '$lib/controls/WalkBack.svelte';
import { rig } from '$lib/tests/answers';
import { onBench } from '$lib/tests/on-bench';
import Drafts from './Drafts.svelte';
import { dropAll, mine } from './store';

const KEY = (window: string, form = 'walk-back') =>
	`lyrandis.draft.abc.${rig.uid}.${form}.${window}`;
const left = (window: string, fields: object, at = '2026-05-01T14:03:00Z', seq = 0) =>
	localStorage.setItem(KEY(window), JSON.stringify({ at, seq, fields }));
const HELD = { distance: '30', offsets: '4 -2', notes: '', about: null, was: null };
const distance = () => screen.getByLabelText<HTMLInputElement>(/^Distance/);
const type = (field: HTMLElement, value: string) => fireEvent.input(field, { target: { value } });

const shut = (): never => {
	throw new DOMException('shut', 'SecurityError');
};

async function opened(answers: Record<string, unknown> = {}) {
	const page = await onBench(WalkBack, {}, { answers });
	render(Drafts);
	return page;
}

beforeEach(() => {
	localStorage.clear();
	noteFolder(new Response('', { headers: { 'x-lyrandis-folder': 'abc.1' } }));
});
afterEach(() => vi.unstubAllGlobals());

describe('what is typed and not logged', () => {
	it('is there again when its form is opened again, and says from when', async () => {
		const before = await opened();
		await type(distance(), '30');
		await waitFor(() => expect(localStorage.getItem(KEY(mine))).toContain('"30"'));
		before.unmount();
		document.body.innerHTML = '';
		await opened();
		expect(distance().value).toBe('30');
		expect(screen.getByText(/Walk-back:/)).toBeInTheDocument();
		expect(screen.getByText(/and waiting here/)).toBeInTheDocument();
	});

	it('is of its own rig and folder only', async () => {
		left('gone', HELD);
		noteFolder(new Response('', { headers: { 'x-lyrandis-folder': 'other.1' } }));
		await opened();
		await new Promise((done) => setTimeout(done, 200));
		expect(distance().value).toBe('');
	});

	it('is taken over from a window that is gone, with what changed in the rig since', async () => {
		left('gone', HELD);
		const line = { seq: 4, said: { text: 'Brace set to 8 in.', values: {}, words: {} } };
		const { bench } = await onBench(WalkBack, {}, { answers: { '/history': [line] } });
		bench.kept = { ...bench.kept, seq: 4 };
		render(Drafts);
		await waitFor(() => expect(distance().value).toBe('30'));
		expect(await screen.findByText(/Brace set to 8 in/)).toBeInTheDocument();
		expect(localStorage.getItem(KEY('gone'))).toBeNull();
		expect(localStorage.getItem(KEY(mine))).toContain('"4 -2"');
	});

	it('is left to a window that is open', async () => {
		left('there', HELD);
		const other = new BroadcastChannel('lyrandis.windows');
		other.onmessage = ({ data }) => data.asks === 'there' && other.postMessage({ lives: 'there' });
		await opened();
		expect(await screen.findByText(/stands in another window/)).toBeInTheDocument();
		await type(distance(), '18');
		await waitFor(() => expect(localStorage.getItem(KEY(mine))).toContain('"18"'));
		expect(localStorage.getItem(KEY('there'))).toContain('"30"');
		other.close();
	});

	it('never replaces what is being typed', async () => {
		left('gone', HELD);
		await opened();
		await type(distance(), '18');
		await new Promise((done) => setTimeout(done, 250));
		expect(distance().value).toBe('18');
		expect(localStorage.getItem(KEY('gone'))).toContain('"30"');
	});

	it('goes when it is pressed so, and nothing else', async () => {
		left(mine, HELD);
		left('gone', HELD, '2026-04-01T10:00:00Z');
		await opened();
		await fireEvent.click(screen.getByRole('button', { name: /Drop it/ }));
		expect(distance().value).toBe('');
		expect(localStorage.getItem(KEY(mine))).toBeNull();
		expect(screen.queryByText(/waiting here/)).toBeNull();
	});

	it('is waiting no more once it is logged; what stays in the form is where the next begins', async () => {
		left(mine, HELD);
		const { server } = await opened({
			'/units/parse': { value: 30 },
			'/parse-list': { values: [4, -2] }
		});
		await fireEvent.click(screen.getByRole('button', { name: /^Log/ }));
		await waitFor(() => expect(server.asked.some((a) => a.path.endsWith('/keep'))).toBe(true));
		await waitFor(() => expect(localStorage.getItem(KEY(mine))).toBeNull());
		expect(distance().value).toBe('30');
		expect(screen.queryByText(/waiting here/)).toBeNull();
	});

	it.each(['null', '7', '{"at": 3}', '{"at":"2026-05-01","fields":null}', 'broken'])(
		'opens its form where what was kept is %s',
		async (text) => {
			localStorage.setItem(KEY(mine), text);
			await opened();
			expect(distance().value).toBe('');
		}
	);

	it('of an older version fills what it still fits', async () => {
		left(mine, { distance: 30, offsets: '4', gone: 'x' });
		await opened();
		expect(distance().value).toBe('');
		expect(screen.getByText(/waiting here/)).toBeInTheDocument();
	});

	it('says so where the browser has no room', async () => {
		await opened();
		const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
			throw new DOMException('full', 'QuotaExceededError');
		});
		await type(distance(), '30');
		expect(await screen.findByText(/keeps nothing more/)).toBeInTheDocument();
		full.mockRestore();
	});

	it('types on where the storage is shut', async () => {
		vi.stubGlobal('localStorage', new Proxy({}, { get: shut, ownKeys: shut, has: shut }));
		await opened();
		await type(distance(), '30');
		expect(await screen.findByText(/keeps nothing more/)).toBeInTheDocument();
		await type(distance(), '');
		expect(distance().value).toBe('');
	});

	it('is not taken from where it lies before it lies here', async () => {
		left('gone', HELD);
		const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(shut);
		await opened();
		await waitFor(() => expect(distance().value).toBe('30'));
		expect(localStorage.getItem(KEY('gone'))).toContain('"30"');
		full.mockRestore();
	});

	it('keeps a hold that is put right, with which it is', async () => {
		localStorage.setItem(
			KEY(mine, 'hold'),
			JSON.stringify({
				at: '2026-05-01T14:03:00Z',
				seq: 0,
				fields: {
					seconds: '12',
					weight: '',
					ended: 'steady',
					notes: '',
					about: { seq: 5, digest: 'd5' },
					putRight: null
				}
			})
		);
		await onBench(HoldTest);
		expect(screen.getByRole('button', { name: 'Put it right' })).toBeInTheDocument();
	});

	it('goes with signing out', () => {
		left(mine, HELD);
		localStorage.setItem('lyrandis.unlogged.3', '{}');
		dropAll();
		expect(Object.keys(localStorage)).toEqual(['lyrandis.unlogged.3']);
	});
});
