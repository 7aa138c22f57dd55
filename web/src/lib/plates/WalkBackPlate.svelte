<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot } from '$lib/charts/plot';
	import Plate from './Plate.svelte';

	/** A walk-back: every arrow beside the line over its distance, and the slant and bow of all. */
	const bench = useBench();
	const told = $derived(bench().bench.walk_back!);
	const far = (m: number) => reference.inShown(m, 'distance');
	const aside = (cm: number) => reference.inShown(cm, 'spot');
	const arrows = $derived(
		told.visits.flatMap((v) => v.offsets_cm.map((o) => [far(v.distance_m), aside(o)] as const))
	);
	const line = $derived(told.line.map(([d, o]) => [far(d as number), aside(o as number)] as const));
	const ROOM = 2;
</script>

<Plate
	label="The walk-back: arrows beside the line, by distance"
	height={250}
	least={160}
	heads={['Distance', 'Right of the line']}
	rows={told.visits.map((v) => [
		reference.text(v.distance_m, 'distance'),
		v.offsets_cm.map((o) => reference.text(o, 'spot')).join(', ')
	])}
>
	{#snippet children(width, height)}
		{@const at = plot({
			x: [0, Math.max(...arrows.map(([d]) => d)) + 2],
			y: extent([...arrows.map(([, o]) => o), 0], ROOM),
			left: 40,
			right: width - 10,
			top: 24,
			bottom: height - 40,
			nice: ['y']
		})}
		<path d="M{at.left} {at.y(0)}H{at.right}" stroke="var(--quiet)" stroke-dasharray="5 4" />
		<Note x={at.right - 4} y={at.y(0) - 6} anchor="end" tone="quiet" text="the line" />
		{#if line.length}<Curve {at} points={line} tone="heather" width={2.2} />{/if}
		{#each arrows as [d, o], i (i)}
			<path d="M{at.x(d) - 4} {at.y(o) - 4}l8 8m0 -8l-8 8" stroke="var(--ink)" stroke-width="1.6" />
		{/each}
		<Note x={at.left + 6} y={at.top + 8} anchor="start" tone="quiet" text="right ↑" />
		<Axes
			{at}
			xLabel="from the butt, {reference.unit('distance').label}"
			yLabel={reference.unit('spot').label}
		/>
	{/snippet}
</Plate>
