<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot, type Pair } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** A new string's brace height over the hours it stood braced: readings, curve, where it rests. */
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
		{@const curve = settling.hours.map((h, i): Pair => [h, b(settling.brace_in[i]!)])}
		{@const values = [
			...curve.map((c) => c[1]),
			...settling.readings.map((r) => b(r[1]!)),
			b(settling.settles_at_in.value)
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
		{@const end = b(settling.settles_at_in.value)}
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
			text={`comes to ${reference.valueText({ ...settling.settles_at_in, quantity: 'brace' })}`}
		/>
		<Curve {at} points={curve} />
		<Axes {at} xLabel="hours braced" yLabel="brace height, {reference.unit('brace').label}" />
		{#each settling.readings as [h, v], i (i)}
			<Spot {at} x={h!} y={b(v!)} of="measured" />
		{/each}
	{/snippet}
</Plate>
