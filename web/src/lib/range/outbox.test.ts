import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { noteFolder } from '$lib/api/folder';
import { Outbox } from './outbox.svelte';
import { plainNumber } from './plainly';
import { rigsHere } from './here';
import { oldShelf, shelf, shutShelf, type Made } from './shelf';
import { Unlogged } from './unlogged.svelte';
import type { Taken } from './setting';

const VIEW = {
	id: 3,
	uid: 'f'.repeat(32),
	seq: 10,
	digest: 'd10',
	made_at: '2026-05-01T08:00:00+00:00',
	bench: { rig: { bow: { brace_height_in: 7.5 } } }
} as unknown as Taken;

/** A server that takes what is handed over, unless it is told otherwise; and what it was sent. */
class Server {
	sent: {
		mark: string;
		seq: number;
		digest?: string;
		strikes?: number;
		strikes_digest?: string;
		changes: object;
	}[] = [];
	seq = 10;
	generation = 1;
	answer: 'takes' | 'silent' | 'refuses' | 'loses' | 'faults' | 'other data' = 'takes';
	private known = new Map<string, number>();

	fetch = async (request: Request): Promise<Response> => {
		const headers = { 'x-lyrandis-folder': `abc.${this.generation}` };
		const json = (body: unknown, status = 200) =>
			new Response(JSON.stringify(body), { status, headers });
		if (this.answer === 'silent') throw new TypeError('no network');
		if (request.url.endsWith('/history?since=10&most=20')) return json([{ seq: this.seq }]);
		if (request.url.endsWith('/rigs/3')) return json({ seq: this.seq, digest: `d${this.seq}` });
		if (this.answer === 'faults') return json({ detail: 'A fault, noted as 7f.' }, 500);
		if (this.answer === 'refuses')
			return json(
				{ detail: 'At most 90 m.', errors: [{ field: 'x', reason: 'At most 90 m.' }] },
				422
			);
		const body = await request.json();
		this.sent.push(body);
		if (this.answer === 'other data')
			return json({ type: 'urn:x-lyrandis:other-data', detail: 'Put back since.' }, 409);
		const known = this.known.get(body.mark);
		if (known === undefined) {
			if (body.seq !== this.seq)
				return json({ type: 'urn:x-lyrandis:conflict', detail: 'no' }, 409);
			this.known.set(body.mark, ++this.seq);
		}
		if (this.answer === 'loses') {
			this.answer = 'takes';
			throw new TypeError('lost on its way');
		}
		const seq = known ?? this.seq;
		return json({ seq, digest: `d${seq}` });
	};
}

let server: Server;
let refreshed: number;
const all = async (rig: number) => (await (await shelf()).all(rig)).made;
async function outboxOf() {
	const kept = await shelf();
	const refresh = async () => void refreshed++;
	return new Outbox(() => VIEW, refresh, kept, await kept.all(3));
}
const visit = { station: 'crawls', trial: { kind: 'crawl_visit' } as Made['body']['trial'] };

beforeEach(() => {
	localStorage.clear();
	vi.stubGlobal('indexedDB', new IDBFactory());
	shutShelf();
	server = new Server();
	refreshed = 0;
	vi.stubGlobal('fetch', server.fetch);
});
afterEach(() => vi.unstubAllGlobals());

describe('what is logged at the range', () => {
	it('is handed over at once, and the rig is told anew', async () => {
		const outbox = await outboxOf();
		outbox.log('an end', visit);
		await vi.waitFor(() => expect(refreshed).toBe(1));
		expect(outbox.made).toEqual([]);
		await vi.waitFor(async () => expect(await all(3)).toEqual([]));
		expect(outbox.handed[0]).toMatchObject({ seq: 11, made: { said: 'an end' } });
		outbox.stop();
	});

	it('waits in the browser while nobody answers, and goes in the order it was made', async () => {
		server.answer = 'silent';
		const before = await outboxOf();
		before.log('one', visit);
		before.log('two', visit);
		await vi.waitFor(() => expect(before.reach).toBe(false));
		before.stop();
		// The page is closed and opened again.
		const outbox = await outboxOf();
		expect(outbox.waiting.map((m) => m.said)).toEqual(['one', 'two']);
		server.answer = 'takes';
		await outbox.hand();
		expect(server.sent.map((s) => s.seq)).toEqual([10, 11]);
		expect(outbox.handed.map((h) => h.made.said)).toEqual(['one', 'two']);
		outbox.stop();
	});

	it('is sent again with its own mark where the answer was lost', async () => {
		server.answer = 'loses';
		const outbox = await outboxOf();
		outbox.log('one', visit);
		outbox.log('two', visit);
		await vi.waitFor(() => expect(outbox.reach).toBe(false));
		await outbox.hand();
		expect(server.sent.map((s) => s.mark)[0]).toBe(server.sent[1]?.mark);
		expect(server.seq).toBe(12);
		expect(outbox.made).toEqual([]);
		outbox.stop();
	});

	it('waits for a choice where something was kept meanwhile', async () => {
		server.seq = 12;
		const outbox = await outboxOf();
		outbox.log('one', visit);
		outbox.log('two', visit);
		await vi.waitFor(() => expect(outbox.meanwhile?.seq).toBe(12));
		await outbox.hand(); // nothing goes on by itself
		expect(server.sent).toHaveLength(1);
		outbox.leave(outbox.made[0]?.mark ?? '', true);
		outbox.onTop();
		await vi.waitFor(() => expect(outbox.handed).toHaveLength(1));
		expect(outbox.made.map((m) => [m.said, m.left])).toEqual([['one', true]]);
		outbox.leave(outbox.made[0]?.mark ?? '', false);
		await vi.waitFor(() => expect(outbox.made).toEqual([]));
		expect(server.seq).toBe(14);
		outbox.stop();
	});

	it('stays with its reason where it is refused, and can be left out and thrown away', async () => {
		server.answer = 'refuses';
		const outbox = await outboxOf();
		outbox.log('far off', visit);
		await vi.waitFor(() => expect(outbox.made[0]?.refused).toBe('At most 90 m.'));
		const mark = outbox.made[0]?.mark ?? '';
		outbox.forget(mark); // not before it is left out
		await vi.waitFor(async () => expect(await all(3)).toHaveLength(1));
		outbox.leave(mark, true);
		outbox.forget(mark);
		await vi.waitFor(async () => expect(await all(3)).toEqual([]));
		outbox.stop();
	});

	it('does not hold up those behind it where it is refused', async () => {
		server.answer = 'refuses';
		const outbox = await outboxOf();
		outbox.log('far off', visit);
		await vi.waitFor(() => expect(outbox.made[0]?.refused).toBe('At most 90 m.'));
		server.answer = 'takes';
		outbox.log('an end', visit);
		await vi.waitFor(() => expect(outbox.handed.map((h) => h.made.said)).toEqual(['an end']));
		expect(outbox.made.map((m) => [m.said, m.refused])).toEqual([['far off', 'At most 90 m.']]);
		// Its rig is there again: it is offered once more, and goes on top of what was kept since.
		const mark = outbox.made[0]?.mark ?? '';
		// The data was put back, or its rig taken in again.
		noteFolder(new Response('', { headers: { 'x-lyrandis-folder': 'abc.2' } }));
		outbox.stop();
		const again = await outboxOf();
		await again.hand();
		expect(again.handed.map((h) => h.made.mark)).toEqual([mark]);
		again.stop();
	});

	it.each(['{"mark":', 'null', '7', '{"mark":"a"}', '[]'])(
		'hides nothing else where a record is %s',
		async (text) => {
			server.answer = 'silent';
			const before = await outboxOf();
			before.log('an end', visit);
			await vi.waitFor(() => expect(before.reach).toBe(false));
			before.stop();
			localStorage.setItem('lyrandis.made.3.2026-01-01T00:00:00Z.broken', text);
			const outbox = await outboxOf();
			expect(outbox.waiting.map((m) => m.said)).toEqual(['an end']);
			expect(outbox.unread.map((one) => one.text)).toEqual([text]);
			outbox.drop(outbox.unread[0]!);
			expect(outbox.unread).toEqual([]);
			await vi.waitFor(async () => expect((await (await shelf()).all(3)).unread).toEqual([]));
			expect(await all(3)).toHaveLength(1);
			outbox.stop();
		}
	);

	it.each(['null', '5', '{"arrows": 5, "nocks": null, "distance": "far"}', '{"arrows": [null]}'])(
		'opens where what was not logged is %s',
		(text) => {
			localStorage.setItem('lyrandis.unlogged.3', text);
			const unlogged = new Unlogged(3, 25);
			unlogged.takeOld();
			const { arrows, nocks, distance } = unlogged;
			expect([arrows, nocks, distance]).toEqual([[], [], 25]);
			localStorage.setItem('lyrandis.range', text);
			expect(rigsHere()).toEqual([]);
		}
	);

	it('is taken over from where an earlier version kept it', () => {
		const arrow = { right_cm: 1, up_cm: 2, keyed: false };
		const old = { distance: 30, own: 12, arrows: [arrow], brace: null, test: 'tails', nocks: [6] };
		localStorage.setItem('lyrandis.unlogged.3', JSON.stringify(old));
		const unlogged = new Unlogged(3, 25);
		expect(unlogged.typed.arrows).toEqual([]);
		unlogged.takeOld();
		expect(unlogged.typed).toMatchObject({ distance: 30, own: 12, arrows: [arrow], nocks: [6] });
		unlogged.keep();
		expect(localStorage.getItem('lyrandis.unlogged.3')).toBe('{"distance":30,"test":"tails"}');
	});

	it("keeps what waits and tells a server's own fault", async () => {
		server.answer = 'faults';
		const outbox = await outboxOf();
		outbox.log('one', visit);
		await vi.waitFor(() => expect(outbox.fault).toBe('A fault, noted as 7f.'));
		expect(outbox.reach).toBe(true);
		await vi.waitFor(async () => expect(await all(3)).toHaveLength(1));
		outbox.stop();
	});

	it('is taken back by striking the trial out, or by setting the value as it was', async () => {
		const outbox = await outboxOf();
		outbox.log('an end', visit);
		outbox.log('brace 8', { station: 'brace', changes: { 'bow.brace_height_in': 8 } });
		await vi.waitFor(() => expect(outbox.handed).toHaveLength(2));
		const [end, brace] = outbox.handed;
		if (brace) outbox.takeBack(brace);
		if (end) outbox.takeBack(end);
		await vi.waitFor(() => expect(outbox.handed).toHaveLength(4));
		expect(server.sent[2]?.changes).toEqual({ 'bow.brace_height_in': 7.5 });
		expect(server.sent[3]?.strikes).toBe(11);
		expect(outbox.handed.slice(2).map((h) => h.made.said)).toEqual([
			'Taken back: brace 8',
			'Taken back: an end'
		]);
		outbox.stop();
	});

	it('is undone from the last on: left out while it waits, taken back once it is kept', async () => {
		const outbox = await outboxOf();
		outbox.log('brace 8', { station: 'brace', changes: { 'bow.brace_height_in': 8 } });
		await vi.waitFor(() => expect(outbox.handed).toHaveLength(1));
		server.answer = 'silent';
		outbox.log('an end', visit);
		await vi.waitFor(() => expect(outbox.reach).toBe(false));
		outbox.undo();
		expect(outbox.made.map((m) => [m.said, m.left])).toEqual([['an end', true]]);
		server.answer = 'takes';
		outbox.undo();
		await vi.waitFor(() => expect(outbox.handed).toHaveLength(2));
		expect(server.sent.at(-1)?.changes).toEqual({ 'bow.brace_height_in': 7.5 });
		outbox.undo(); // what was taken back is not taken back again
		await outbox.hand();
		expect(outbox.handed).toHaveLength(2);
		outbox.stop();
	});

	it('knows what waits to be set, and what that was before', async () => {
		server.answer = 'silent';
		const outbox = await outboxOf();
		const brace = (at: number) => ({ station: 'brace', changes: { 'bow.brace_height_in': at } });
		outbox.log('brace 8', brace(8));
		expect(outbox.setting('bow.brace_height_in')).toBe(8);
		outbox.log('brace 8 1/4', brace(8.25));
		await vi.waitFor(() => expect(outbox.reach).toBe(false));
		server.answer = 'takes';
		await outbox.hand();
		expect(outbox.handed[1]?.back?.deed.changes).toEqual({ 'bow.brace_height_in': 8 });
		outbox.stop();
	});

	const full = () => Promise.reject(new DOMException('full', 'QuotaExceededError'));

	it('stays in sight where the browser has no room, and is kept as soon as it has', async () => {
		server.answer = 'silent';
		const kept = await shelf();
		const put = vi.spyOn(kept, 'put').mockImplementation(full);
		const outbox = await outboxOf();
		outbox.log('one', visit);
		await vi.waitFor(() => expect(outbox.safe).toBe(false));
		await outbox.look(); // another window did something
		expect(outbox.waiting.map((m) => m.said)).toEqual(['one']);
		put.mockRestore();
		await outbox.hand();
		await vi.waitFor(() => expect(outbox.safe).toBe(true));
		expect((await all(3)).map((m) => m.said)).toEqual(['one']);
		outbox.stop();
	});

	it('goes to the old place, and says so, where the database is refused', async () => {
		vi.stubGlobal('indexedDB', {
			open: () => {
				throw new DOMException('no', 'SecurityError');
			}
		});
		server.answer = 'silent';
		const outbox = await outboxOf();
		expect(outbox.oldPlace).toBe(true);
		outbox.log('one', visit);
		await vi.waitFor(async () => expect((await oldShelf.all(3)).made).toHaveLength(1));
		outbox.stop();
	});

	it('is moved from the old place once, in the order in which it was made', async () => {
		const old = (mark: string, at: string): Made => ({
			mark,
			rig: 3,
			at,
			said: mark,
			was: {},
			body: {
				...visit,
				seq: 10,
				made_at: '',
				why: '',
				standing: 'provisional',
				changes: {}
			} as Made['body']
		});
		await oldShelf.put(old('b', '2026-05-02T08:00:00Z'));
		await oldShelf.put(old('a', '2026-05-01T08:00:00Z'));
		expect((await all(3)).map((m) => m.mark)).toEqual(['a', 'b']);
		expect(localStorage).toHaveLength(0);
		shutShelf();
		expect(await all(3)).toHaveLength(2);
	});

	it('is in the order in which it was made, whatever the clock says', async () => {
		server.answer = 'silent';
		const outbox = await outboxOf();
		vi.useFakeTimers({ now: new Date('2026-05-02'), toFake: ['Date'] });
		outbox.log('first', visit);
		vi.setSystemTime(new Date('2026-05-01'));
		outbox.log('second', visit);
		vi.useRealTimers();
		await vi.waitFor(async () => expect(await all(3)).toHaveLength(2));
		expect((await all(3)).map((m) => m.said)).toEqual(['first', 'second']);
		outbox.stop();
	});

	it('names the entries it rests on by their digests too', async () => {
		const outbox = await outboxOf();
		outbox.log('one', visit);
		outbox.log('two', visit);
		await vi.waitFor(() => expect(outbox.handed).toHaveLength(2));
		outbox.takeBack(outbox.handed[0]!);
		await vi.waitFor(() => expect(server.sent).toHaveLength(3));
		expect(server.sent.map((s) => s.digest)).toEqual(['d10', 'd11', 'd12']);
		expect(server.sent[2]).toMatchObject({ strikes: 11, strikes_digest: 'd11' });
		outbox.stop();
	});

	it('stays with its archer where it was made on other data', async () => {
		const outbox = await outboxOf();
		outbox.log('an end', visit);
		await vi.waitFor(() => expect(outbox.handed).toHaveLength(1));
		server.answer = 'other data';
		server.generation = 2;
		outbox.takeBack(outbox.handed[0]!);
		outbox.log('one more', visit);
		await vi.waitFor(() =>
			expect(outbox.made.map((m) => m.refused)).toEqual(Array(2).fill('Put back since.'))
		);
		expect(outbox.meanwhile).toBeNull();
		const [back, more] = outbox.made;
		server.answer = 'takes';
		server.seq = 10;
		await outbox.hand();
		expect(outbox.made).toHaveLength(2); // the same data still
		outbox.onThis(back!.mark); // what it names is not there
		outbox.onThis(more!.mark);
		await vi.waitFor(() => expect(outbox.made.map((m) => m.said)).toEqual(['Taken back: an end']));
		expect(server.sent.at(-1)).toMatchObject({ seq: 10, digest: 'd10' });
		outbox.stop();
	});

	it('takes nothing back by a number alone', async () => {
		const outbox = await outboxOf();
		outbox.log('Taken back: an end', { station: 'crawls', strikes: 11 });
		await vi.waitFor(() => expect(outbox.made[0]?.refused).toContain('in the logbook'));
		expect(server.sent).toEqual([]);
		outbox.stop();
	});

	it('is seen in another window, and goes there when it is handed over', async () => {
		server.answer = 'silent';
		const [one, two] = [await outboxOf(), await outboxOf()];
		one.log('an end', visit);
		await vi.waitFor(() => expect(two.waiting.map((m) => m.said)).toEqual(['an end']));
		server.answer = 'takes';
		await two.hand();
		await vi.waitFor(() => expect(one.made).toEqual([]));
		one.stop();
		two.stop();
	});
});

describe('a plain number', () => {
	it.each([
		['27', 27],
		['7 7/8', 7.875],
		['7-7/8', 7.875],
		['3/4', 0.75],
		['12,5', 12.5],
		['−3', -3],
		['.5', 0.5]
	])('%s is %d', (text, value) => expect(plainNumber(text)).toBeCloseTo(value, 9));
	it.each(['', 'far', '50 yd', '1/0', '1.2.3', '7 7'])('%s is none', (text) =>
		expect(plainNumber(text)).toBeNull()
	);
});
