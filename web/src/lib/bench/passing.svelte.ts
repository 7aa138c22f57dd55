import { api, told, type Schemas } from '$lib/api/client';
import { Asked, asked } from './asked.svelte';
import type { RigBench } from './bench.svelte';

export type Passing = Schemas['PassingView'];
export type Changes = Schemas['ChangesView'];

/** The shaft passing the bow. */
export const passing = (bench: () => RigBench) =>
	new Asked<Passing>(bench, (b) => told(api.POST('/api/rigs/{id}/passing', asked(b))));

/** What would move it, and what its nock point's height does. */
export const changes = (bench: () => RigBench) =>
	new Asked<Changes>(bench, (b) => told(api.POST('/api/rigs/{id}/passing/changes', asked(b))));
