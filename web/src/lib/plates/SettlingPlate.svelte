<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import { line } from 'd3-shape';
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from './Axes.svelte';
	import Label from './Label.svelte';
	import Plate from './Plate.svelte';

	/** A new string's brace height over the hours it stood braced: readings, curve, where it rests. */
	let { settling }: { settling: Schemas['SettlingView'] } = $props();
	type Pair = [number, number];
	const b = (v: number) => reference.inShown(v, 'brace');
</script>

<Plate
	label="Brace height of the new string over the hours it stood braced"
	height={220}
	heads={['Hours braced', 'Brace']}
	rows={settling.readings.map(([h, v]) => [
		reference.text(h!, 'hours'),
		reference.text(v!, 'brace')
	])}
>
	{#snippet children(width, height)}
		{@const curve = settling.hours.map((h, i): Pair => [h, b(settling.brace_in[i]!)])}
		{@const values = [
			...curve.map((c) => c[1]),
			...settling.readings.map((r) => b(r[1]!)),
			b(settling.settles_at_in.value)
		]}
		{@const x = scaleLinear()
			.domain([0, settling.hours[settling.hours.length - 1]!])
			.range([52, width - 16])}
		{@const y = scaleLinear()
			.domain([Math.min(...values), Math.max(...values)])
			.nice()
			.range([height - 44, 24])}
		{@const end = b(settling.settles_at_in.value)}
		<path d="M{x.range()[0]} {y(end)}H{x.range()[1]}" stroke="var(--moss)" stroke-dasharray="4 3" />
		<text
			class="halo"
			x={x.range()[1]! - 4}
			y={y(end) - 6}
			text-anchor="end"
			style:fill="var(--moss)"
			><Label
				text={`comes to ${reference.valueText({ ...settling.settles_at_in, quantity: 'brace' })}`}
			/></text
		>
		<path
			d={line<Pair>(
				(p) => x(p[0]),
				(p) => y(p[1])
			)(curve)}
			fill="none"
			stroke="var(--ink)"
			stroke-width="1.8"
		/>
		<Axes {x} {y} xLabel="hours braced" yLabel="brace height, {reference.unit('brace').label}" />
		{#each settling.readings as [h, v], i (i)}
			<path d="M{x(h!) - 5} {y(b(v!))}h10m-5 -5v10" stroke="var(--heather)" stroke-width="2" />
		{/each}
	{/snippet}
</Plate>
