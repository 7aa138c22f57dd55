import { vi } from 'vitest';
import type { Bench, Rig, RigView } from '$lib/api/client';
import * as answers from './answers';

/** What the stand-in server was asked. */
interface Asked {
	path: string;
	body: Record<string, unknown>;
}

type Changes = Record<string, unknown>;

function changed(changes: Changes): Rig {
	const rig = structuredClone(answers.rig.rig);
	for (const [path, value] of Object.entries(changes)) {
		const [parent, leaf] = path.split('.') as [keyof Rig, string | undefined];
		// What a test changes is its own affair: the path is read as the server would.
		if (leaf === undefined) Object.assign(rig, { [parent]: value });
		else Object.assign(rig[parent] as object, { [leaf]: value });
	}
	return rig;
}

function rigView(seq: number, changes: Changes = {}): RigView {
	return {
		...answers.rig,
		seq,
		rig: changed(changes),
		states: [
			{ station: 'draw', state: 'open', moved: [], reasons: [] },
			{ station: 'crawls', state: 'settled', moved: [], reasons: [] }
		]
	};
}

function benchView(changes: Changes = {}): Bench {
	const rig = changed(changes);
	const draw = {
		value: rig.archer.draw_length_in,
		quantity: 'draw',
		plus_minus: null,
		exact: false
	};
	const weight = { value: 36.5, quantity: 'weight', plus_minus: 1.5, exact: false };
	return {
		...structuredClone(answers.bench),
		rig,
		stations: [],
		notes: [],
		takedown_recurve: false,
		listening: null,
		turns_seen: [],
		force_draw: {
			...answers.bench.force_draw!,
			true_draw_in: { value: 28, plus_minus: 1, source: 'rule' },
			weight_at_draw_lbf: { value: 36.5, plus_minus: 1.5, source: 'model' }
		},
		tally: [
			{ id: 'draw', title: 'Draw', station: 'draw', value: draw, source: 'set' },
			{ id: 'weight', title: 'At your draw', station: 'weight', value: weight, source: 'model' },
			{ id: 'speed', title: 'Speed', station: 'arrow', value: null, source: 'model' }
		]
	};
}

function json(body: unknown, status = 200): Response {
	return new Response(JSON.stringify(body), {
		status,
		headers: { 'content-type': 'application/json' }
	});
}

/** Reads plain numbers, and "… yd" as yards; anything else is refused as the server does. */
function parse(text: string): Response {
	const value = Number.parseFloat(text);
	if (Number.isNaN(value)) return json({ detail: `“${text}” is not a measurement.` }, 422);
	return json({ value: text.includes('yd') ? value * 0.9144 : value });
}

/** The same for several, between spaces, commas or semicolons. */
async function parseList(text: string): Promise<Response> {
	const values: number[] = [];
	for (const [word] of text.matchAll(/[^\s,;]+(?:\s+[a-z]+)?/g)) {
		const answer = parse(word);
		if (!answer.ok) return answer;
		values.push(((await answer.json()) as { value: number }).value);
	}
	return json({ values });
}

/** A stand-in for the server; set `fail` to have it refuse, `states` to have stations due. */
export function serve() {
	const server = {
		asked: [] as Asked[],
		fail: null as { status: number; body: unknown } | null,
		states: null as RigView['states'] | null,
		reaches: [] as { rig_id: number; rig: string; part: string; due: string[] }[],
		trials: null as RigView['trials'] | null,
		/** What another window keeps before this one's next write, which is then refused. */
		meanwhile: null as Changes | null,
		/** What the bench holds besides the usual. */
		bench: {} as Record<string, unknown>,
		/** Answers of other paths, by their ending. */
		answers: {} as Record<string, unknown>
	};
	let seq = 0;
	let kept: Changes = {};
	vi.stubGlobal('fetch', async (request: Request) => {
		const path = new URL(request.url).pathname;
		const body = request.method === 'POST' ? await request.json() : {};
		server.asked.push({ path, body });
		if (server.fail) return json(server.fail.body, server.fail.status);
		if (path.endsWith('/parse')) return parse(body.text);
		if (path.endsWith('/parse-list')) return parseList(body.text);
		const other = Object.keys(server.answers).find((ending) => path.endsWith(ending));
		if (other) return json(server.answers[other]);
		if (path.endsWith('/draw-length')) {
			const mean = body.readings_in.reduce((a: number, b: number) => a + b, 0);
			const value = mean / body.readings_in.length;
			const estimate = { value, plus_minus: 0.25, source: 'measured' };
			return json({ draw_length_in: estimate, true_draw_in: estimate, spread_in: 0.2 });
		}
		if (path.endsWith('/history')) return json([]);
		if (server.meanwhile && request.method === 'POST' && !path.endsWith('/preview')) {
			kept = { ...kept, ...server.meanwhile };
			seq += 1;
			server.meanwhile = null;
			return json({ type: 'urn:x-lyrandis:conflict', detail: 'Meanwhile.', errors: [] }, 409);
		}
		const wanted = { ...kept, ...((body.changes ?? {}) as Changes) };
		if (path.endsWith('/preview')) {
			const states = server.states ?? rigView(seq).states;
			return json({
				bench: { ...benchView(wanted), ...server.bench },
				states,
				reaches: server.reaches
			});
		}
		if (path.endsWith('/keep')) kept = wanted;
		if (request.method === 'POST') seq += 1;
		const view = rigView(seq, kept);
		return json(server.trials ? { ...view, trials: server.trials } : view);
	});
	return server;
}
