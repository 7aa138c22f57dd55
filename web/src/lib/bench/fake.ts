import { vi } from 'vitest';
import type { Bench, RigView } from '$lib/api/client';

/** A server for tests: one rig with a draw and a weight, and a notebook of what was asked. */
export interface Asked {
	path: string;
	body: Record<string, unknown>;
}

export function rigView(seq: number, draw: number): RigView {
	return {
		id: 1,
		seq,
		archived: false,
		rig: { name: 'One', archer: { draw_length_in: draw }, bow: { marked_weight_lbf: 36 } },
		states: [{ station: 'draw', state: 'open', moved: [], reasons: [] }],
		undoable: null,
		redoable: null
	} as unknown as RigView;
}

export function benchView(draw: number): Bench {
	const value = { value: draw, quantity: 'draw', plus_minus: null };
	return {
		rig: rigView(0, draw).rig,
		stations: [],
		tally: [{ id: 'draw', title: 'Draw', station: 'draw', value, source: 'set' }]
	} as unknown as Bench;
}

function json(body: unknown, status = 200): Response {
	return new Response(JSON.stringify(body), {
		status,
		headers: { 'content-type': 'application/json' }
	});
}

export function serve(): { asked: Asked[]; fail: { status: number; body: unknown } | null } {
	const server = {
		asked: [] as Asked[],
		fail: null as { status: number; body: unknown } | null
	};
	let seq = 0;
	let draw = 28;
	vi.stubGlobal('fetch', async (request: Request) => {
		const path = new URL(request.url).pathname;
		const body = request.method === 'POST' ? await request.json() : {};
		server.asked.push({ path, body });
		if (server.fail) return json(server.fail.body, server.fail.status);
		const changes = (body.changes ?? {}) as Record<string, number>;
		const wanted = changes['archer.draw_length_in'] ?? draw;
		if (path.endsWith('/preview'))
			return json({ bench: benchView(wanted), states: rigView(seq, wanted).states });
		if (path.endsWith('/keep')) {
			seq += 1;
			draw = wanted;
		}
		if (path.endsWith('/undo') || path.endsWith('/redo') || path.endsWith('/check')) seq += 1;
		return json(rigView(seq, draw));
	});
	return server;
}
