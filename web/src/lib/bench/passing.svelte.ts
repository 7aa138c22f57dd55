import { api, told, type Schemas } from '$lib/api/client';
import type { RigBench } from './bench.svelte';
import { latest } from './latest';

export type Passing = Schemas['PassingView'];

/** The shaft passing the bow as the rig stands on the bench: asked anew when a setting moves. */
export class PassingShot {
	told = $state.raw<Passing | null>(null);
	problem = $state('');

	constructor(private bench: () => RigBench) {
		const ask = latest<void>(() => this.ask());
		$effect(() => {
			void JSON.stringify([bench().changes, bench().kept.seq]);
			ask();
		});
	}

	private async ask(): Promise<void> {
		const params = { path: { id: this.bench().id } };
		const body = { changes: $state.snapshot(this.bench().changes) as Record<string, unknown> };
		try {
			this.told = await told(api.POST('/api/rigs/{id}/passing', { params, body }));
			this.problem = '';
		} catch (error) {
			this.problem = (error as Error).message;
		}
	}
}
