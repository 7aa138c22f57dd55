import { api, told, type Schemas } from '$lib/api/client';
import { follow } from '$lib/api/job';
import type { RigBench } from './bench.svelte';

export type SpineMap = Schemas['SpineMapView'];
/** The map's own axes: they move the mark on it, not the map. */
const AXES = ['arrow.shaft_length_in', 'arrow.point_gr'];

/** The spine map of a rig, drawn by a job: how far it is, and a way to stop it. */
export class Mapped {
	told = $state.raw<SpineMap | null>(null);
	busy = $state(false);
	share = $state<number | null>(null);
	problem = $state('');
	private of = $state('');
	private stopping: AbortController | null = null;

	constructor(private readonly bench: () => RigBench) {}

	/** Whether the rig is otherwise than when the map was drawn. */
	readonly stale = $derived.by(() => this.told !== null && this.of !== this.key());

	private key(): string {
		const changes = Object.entries(this.bench().changes).filter(([path]) => !AXES.includes(path));
		return JSON.stringify([changes, this.bench().kept.seq]);
	}

	async draw(): Promise<void> {
		const bench = this.bench();
		[this.busy, this.share, this.problem] = [true, null, ''];
		this.stopping = new AbortController();
		const of = this.key();
		try {
			const job = await told(
				api.POST('/api/jobs/spine-map/{id}', {
					params: { path: { id: bench.id } },
					body: { changes: $state.snapshot(bench.changes) as Record<string, unknown> }
				})
			);
			const { signal } = this.stopping;
			this.told = await follow<SpineMap>(job.id, { onTold: (s) => (this.share = s), signal });
			this.of = of;
		} catch (error) {
			this.problem = (error as Error).message;
		} finally {
			this.busy = false;
		}
	}

	stop(): void {
		this.stopping?.abort();
	}
}
