import { api, told, type Schemas } from '$lib/api/client';
import type { RigBench } from './bench.svelte';
import { latest } from './latest';

export type Passing = Schemas['PassingView'];
export type Changes = Schemas['ChangesView'];

/** The rig as it stands on the bench, as a question of its shaft passing the bow takes it. */
const asked = (bench: RigBench) => ({
	params: { path: { id: bench.id } },
	body: { changes: $state.snapshot(bench.changes) as Record<string, unknown> }
});

/** What is asked anew when a setting moves; only while somebody looks at it. */
class Asked<Answer> {
	told = $state.raw<Answer | null>(null);
	problem = $state('');

	constructor(bench: () => RigBench, ask: (bench: RigBench) => Promise<Answer>) {
		const next = latest<void>(async () => {
			try {
				this.told = await ask(bench());
				this.problem = '';
			} catch (error) {
				this.problem = (error as Error).message;
			}
		});
		$effect(() => {
			void JSON.stringify([bench().changes, bench().kept.seq]);
			next();
		});
	}
}

/** The shaft passing the bow. */
export const passing = (bench: () => RigBench) =>
	new Asked<Passing>(bench, (b) => told(api.POST('/api/rigs/{id}/passing', asked(b))));

/** What would move it, and what its nock point's height does. */
export const changes = (bench: () => RigBench) =>
	new Asked<Changes>(bench, (b) => told(api.POST('/api/rigs/{id}/passing/changes', asked(b))));
