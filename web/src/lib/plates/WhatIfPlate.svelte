<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ArrowShape from './ArrowShape.svelte';
	import { fit, narrow } from './frame';
	import Plate from './Plate.svelte';

	/** Arrows to one scale under one another, their nocks in line, each with its balance. */
	interface Row {
		name: string;
		arrow: Schemas['ArrowOnBow'] | null;
	}
	let { arrows }: { arrows: Row[] } = $props();
	const bench = useBench();
	const drawn = $derived(arrows.filter((a) => a.arrow !== null));
	const longest = $derived(Math.max(30, ...drawn.map((a) => a.arrow!.shaft_length_in)));
	const ROW = 62;
</script>

<Plate
	label="Arrows to scale beside one another"
	height={Math.max(drawn.length, 1) * ROW + 6}
	least={Math.max(drawn.length, 1) * 46}
>
	{#snippet children(width, height)}
		{@const row = height / Math.max(drawn.length, 1)}
		{#each drawn as { name, arrow }, i (name)}
			{@const at = fit(
				{ x0: -1.4, x1: longest + 0.6, y0: -0.8, y1: 0.8 },
				{ left: 0, top: i * row + 16, width, height: row - 18 },
				bench().bench.rig.archer.hand === 'left'
			)}
			{@const on = (inches: number) => at.x(longest - inches)}
			<ArrowShape
				{at}
				nock={longest}
				lengthIn={arrow!.shaft_length_in}
				diameterMm={bench().bench.rig.arrow.diameter_mm!}
				fletchings={bench().bench.rig.arrow.fletching_count}
				ghost={i > 0}
			/>
			<path d="M{on(arrow!.balance_in)} {at.y(0) + 5}l-5 9h10Z" fill="var(--heather)" />
			<text x="0" y={i * row + 13} style:font-weight="600">{name}</text>
			<text class="q" x={width} y={i * row + 13} text-anchor="end"
				>{reference.text(arrow!.mass_gr.value, 'mass')}{narrow(width)
					? ''
					: `, shaft ${reference.text(arrow!.shaft_length_in, 'draw')}`}, {reference.text(
					arrow!.speed_fps.value,
					'speed'
				)}</text
			>
		{/each}
	{/snippet}
</Plate>
