import { api, told, type Schemas } from '$lib/api/client';
import { Asked, asked } from './asked.svelte';
import type { RigBench } from './bench.svelte';

export type Aiming = Schemas['AimingView'];

/** What an archer would weigh about the aim. */
export const asAiming = (bench: () => RigBench) =>
	new Asked<Aiming>(bench, (b) => told(api.POST('/api/rigs/{id}/aiming', asked(b))));
