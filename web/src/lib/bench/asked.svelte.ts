import type { RigBench } from './bench.svelte';
import { latest } from './latest';

/** The rig as it stands on the bench, as a question of it takes it. */
export const asked = (bench: RigBench) => ({
	params: { path: { id: bench.id } },
	body: { changes: $state.snapshot(bench.changes) as Record<string, unknown> }
});

/** What is asked anew when a setting moves; only while somebody looks at it. */
export class Asked<Answer> {
	told = $state.raw<Answer | null>(null);
	problem = $state('');

	constructor(bench: () => RigBench, ask: (bench: RigBench) => Promise<Answer>) {
		const next = latest<void>(async (_, current) => {
			try {
				const came = await ask(bench());
				if (current()) this.told = came;
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
