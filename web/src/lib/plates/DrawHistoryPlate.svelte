<script lang="ts">
	import { scaleLinear, scaleTime } from 'd3-scale';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
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
			{@const x = scaleTime()
				.domain([days[0]! - pad, days[days.length - 1]! + pad])
				.range([52, width - 16])}
			{@const low = Math.min(...points.map((p) => p.draw_in - p.plus_minus_in)) - 0.15}
			{@const high = Math.max(...points.map((p) => p.draw_in + p.plus_minus_in)) + 0.15}
			{@const y = scaleLinear()
				.domain([d(low), d(high)])
				.range([height - 34, 22])}
			<path
				d="M{x.range()[0]} {y.range()[1]}V{y.range()[0]}H{x.range()[1]}"
				fill="none"
				stroke="var(--quiet)"
			/>
			{#each y.ticks(4) as tick (tick)}
				<path d="M{x.range()[0]} {y(tick)}h-4" stroke="var(--quiet)" />
				<text class="q num" x={x.range()[0]! - 7} y={y(tick) + 4} text-anchor="end">{tick}</text>
			{/each}
			{#each x.ticks(Math.min(5, points.length + 1)) as tick (tick.getTime())}
				<path d="M{x(tick)} {y.range()[0]}v4" stroke="var(--quiet)" />
				<text class="q" x={x(tick)} y={y.range()[0]! + 17} text-anchor="middle">{short(tick)}</text>
			{/each}
			<text class="q" x="18" y="12">draw, {reference.unit('draw').label}</text>
			{#each points as p (p.seq)}
				{@const cx = x(day(p.day))}
				{@const good = p.method === 'marked_arrow'}
				<path
					d="M{cx} {y(d(p.draw_in - p.plus_minus_in))}V{y(d(p.draw_in + p.plus_minus_in))}"
					stroke="var(--heather)"
					stroke-width="2.5"
					opacity="0.45"
				/>
				<circle
					{cx}
					cy={y(d(p.draw_in))}
					r="4.5"
					fill={good ? 'var(--heather)' : 'var(--paper)'}
					stroke="var(--heather)"
					stroke-width="1.5"
				/>
			{/each}
		{:else}
			<text class="q" x={width / 2} y={height / 2} text-anchor="middle"
				>No draw was measured here yet: the first one stands here with its day.</text
			>
		{/if}
	{/snippet}
</Plate>
