<script lang="ts">
	import type { Aiming } from '$lib/bench/aiming.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { plot } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** Hits over distance: when it is known, and as the archer judges it. */
	let { told }: { told: Aiming } = $props();
	const dist = (v: number) => reference.inShown(v, 'distance');
	const far = $derived(dist(Math.max(...told.rows.map((r) => r.distance_m)) * 1.05));
	const judged = $derived(told.rows.filter((r) => r.judged_hits != null));
</script>

<Plate
	label="Hits in the spot over distance"
	height={250}
	heads={['Distance', 'Known', 'As you judge', 'Must be judged to']}
	rows={told.rows.map((r) => [
		reference.text(r.distance_m, 'distance'),
		reference.text(100 * r.hits, 'percent'),
		r.judged_hits == null ? '–' : reference.text(100 * r.judged_hits, 'percent'),
		`± ${reference.text(r.within_m, 'distance')}`
	])}
>
	{#snippet children(width, height)}
		{@const at = plot({
			x: [0, far],
			y: [0, 100],
			left: 44,
			right: width - 96,
			top: 18,
			bottom: height - 44
		})}
		{@const last = told.rows.at(-1)!}
		<Axes
			{at}
			xLabel="distance, {reference.unit('distance').label}"
			yLabel="arrows in the spot, up and down, %"
			grid
		/>
		<Curve {at} points={told.rows.map((r) => [dist(r.distance_m), 100 * r.hits])} width={1.6} />
		<Note x={at.right + 6} y={at.y(100 * last.hits) + 4} text="known" anchor="start" tone="ink" />
		{#if judged.length}
			<Curve
				{at}
				points={judged.map((r) => [dist(r.distance_m), 100 * r.judged_hits!])}
				tone="heather"
				width={2}
			/>
			{#each judged as r (r.distance_m)}
				<Spot
					{at}
					x={dist(r.distance_m)}
					y={100 * r.judged_hits!}
					of="own"
					tone="heather"
					size={3}
				/>
			{/each}
			{@const end = judged.at(-1)!}
			{@const y = at.y(100 * end.judged_hits!) + 4}
			{@const clear = Math.abs(y - at.y(100 * last.hits) - 4) < 16 ? y + 16 : y}
			<Note x={at.right + 6} y={clear} text="as you judge" anchor="start" />
		{/if}
	{/snippet}
</Plate>
