<script lang="ts">
	import { scaleTime } from 'd3-scale';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import { plot } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** The draws over time, each with its ±, and the line through them where there is one. */
	const bench = useBench();
	const points = $derived(bench().bench.draws?.points ?? []);
	const d = (v: number) => reference.inShown(v, 'draw');
	const day = (text: string) => new Date(`${text}T12:00`);
	const short = (date: Date) =>
		date.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: '2-digit' });
</script>

<Plate
	label="Your draw over time"
	height={190}
	heads={['Day', 'Draw', '±', 'Measured by']}
	rows={points.map((p) => [
		p.day,
		reference.text(p.draw_in, 'draw'),
		reference.text(p.plus_minus_in, 'draw'),
		reference.word('archer.draw_method', p.method)
	])}
>
	{#snippet children(width, height)}
		{#if points.length}
			{@const days = points.map((p) => day(p.day).getTime())}
			{@const pad = Math.max((days[days.length - 1]! - days[0]!) * 0.08, 7 * 864e5)}
			{@const low = Math.min(...points.map((p) => p.draw_in - p.plus_minus_in)) - 0.15}
			{@const high = Math.max(...points.map((p) => p.draw_in + p.plus_minus_in)) + 0.15}
			{@const at = plot({
				x: [days[0]! - pad, days[days.length - 1]! + pad],
				y: [d(low), d(high)],
				left: 52,
				right: width - 16,
				top: 22,
				bottom: height - 34
			})}
			{@const ticks = scaleTime()
				.domain(at.x.domain())
				.ticks(Math.min(5, points.length + 1))}
			<Axes
				{at}
				xLabel=""
				yLabel="draw, {reference.unit('draw').label}"
				yTicks={4}
				places={ticks.map((t) => t.getTime())}
				says={(time) => short(new Date(time))}
			/>
			{#each points as p, i (i)}
				<Spot
					{at}
					x={day(p.day).getTime()}
					y={d(p.draw_in)}
					of={p.method === 'marked_arrow' ? 'own' : 'estimated'}
					size={4.5}
					spread={[d(p.draw_in - p.plus_minus_in), d(p.draw_in + p.plus_minus_in)]}
				/>
			{/each}
		{:else}
			<text class="q" x={width / 2} y={height / 2} text-anchor="middle"
				>No draw was measured here yet: the first one stands here with its day.</text
			>
		{/if}
	{/snippet}
</Plate>
