<script lang="ts">
	import type { Changes } from '$lib/bench/passing.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot } from '$lib/charts/plot';
	import Span from '$lib/charts/Span.svelte';
	import Plate from './Plate.svelte';

	/** How far up the nock stands over the nock point's error: high, and the false high below. */
	let { side }: { side: NonNullable<Changes['side']> } = $props();
	const errors = $derived(side.error_mm.map((e) => reference.inShown(e, 'nock_height')));
	const points = $derived(errors.map((e, i) => [e, side.nock_up_deg[i]!] as const));
	const unit = $derived(reference.unit('nock_height').label);
</script>

<Plate
	label="How high the arrow nock stands, by the nock point's error"
	height={230}
	least={150}
	heads={[
		`Nock point too high (${unit})`,
		`Nock up at ${reference.text(side.at_m, 'distance')} (°)`
	]}
	rows={side.error_mm.map((e, i) => [
		reference.text(e, 'nock_height', false),
		reference.text(side.nock_up_deg[i]!, 'angle_1', false)
	])}
>
	{#snippet children(width, height)}
		{@const at = plot({
			x: extent(errors),
			y: extent([...side.nock_up_deg, 0], 1),
			left: 40,
			right: width - 10,
			top: 22,
			bottom: height - 40,
			nice: ['y']
		})}
		<Span {at} from={errors[0]!} to={0} tone="ochre" />
		<Curve {at} {points} />
		<Note
			x={at.left + 8}
			y={at.bottom - 10}
			anchor="start"
			tone="ochre"
			text="too low, and it reads high"
		/>
		<Note x={at.x(errors.at(-1)! / 2)} y={at.bottom - 10} tone="quiet" text="too high reads high" />
		<Axes {at} xLabel="nock point, {unit} too high" yLabel="° nock up" />
	{/snippet}
</Plate>
