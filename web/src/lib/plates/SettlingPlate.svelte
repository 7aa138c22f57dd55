<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Band from '$lib/charts/Band.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot, type Pair } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** A new string's brace height over the hours it stood braced: readings, what they allow, its end. */
	let { settling }: { settling: Schemas['SettlingView'] } = $props();
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
		{@const told = settling.explained ? settling.hours : []}
		{@const curve = told.map((h, i): Pair => [h, b(settling.brace_in[i]!)])}
		{@const sure = told.map(
			(h, i) => [h, b(settling.low_in[i]!), b(settling.high_in[i]!)] as const
		)}
		{@const values = [
			...sure.flatMap((r) => [r[1], r[2]]),
			...settling.readings.map((r) => b(r[1]!)),
			...(settling.explained ? [b(settling.final_brace_in.value)] : [])
		]}
		{@const at = plot({
			x: [0, settling.hours[settling.hours.length - 1]!],
			y: extent(values),
			left: 52,
			right: width - 16,
			top: 24,
			bottom: height - 44,
			nice: ['y']
		})}
		<Band {at} rows={sure} />
		{#if settling.explained}
			{@const end = b(settling.final_brace_in.value)}
			<Curve
				{at}
				points={[
					[0, end],
					[at.x.domain()[1]!, end]
				]}
				tone="moss"
				width={1}
				dash="4 3"
			/>
			<Note
				x={at.right - 4}
				y={at.y(end) - 6}
				anchor="end"
				tone="moss"
				text={`after a fortnight ${reference.valueText({ ...settling.final_brace_in, quantity: 'brace' })}`}
			/>
		{/if}
		<Curve {at} points={curve} />
		<Axes {at} xLabel="hours braced" yLabel="brace height, {reference.unit('brace').label}" />
		{#each settling.readings as [h, v], i (i)}
			<Spot {at} x={h!} y={b(v!)} of="measured" />
		{/each}
	{/snippet}
</Plate>
