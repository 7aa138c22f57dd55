<script lang="ts">
	import type { ScaleLinear } from 'd3-scale';

	/** The one chart grammar: thin axes, short ticks, quiet numbers, the unit in the label. */
	interface Props {
		x: ScaleLinear<number, number>;
		y: ScaleLinear<number, number>;
		xLabel: string;
		yLabel: string;
		xTicks?: number;
		yTicks?: number;
		grid?: boolean;
	}
	let { x, y, xLabel, yLabel, xTicks = 6, yTicks = 5, grid = false }: Props = $props();

	const left = $derived(Math.min(...x.range()));
	const right = $derived(Math.max(...x.range()));
	const top = $derived(Math.min(...y.range()));
	const bottom = $derived(Math.max(...y.range()));
</script>

<g>
	{#if grid}
		{#each y.ticks(yTicks) as tick (tick)}
			<path d="M{left} {y(tick)}H{right}" stroke="var(--hair)" />
		{/each}
	{/if}
	<path d="M{left} {top}V{bottom}H{right}" fill="none" stroke="var(--quiet)" />
	{#each x.ticks(xTicks) as tick (tick)}
		<path d="M{x(tick)} {bottom}v4" stroke="var(--quiet)" />
		<text class="q num" x={x(tick)} y={bottom + 17} text-anchor="middle">{tick}</text>
	{/each}
	{#each y.ticks(yTicks) as tick (tick)}
		<path d="M{left} {y(tick)}h-4" stroke="var(--quiet)" />
		<text class="q num" x={left - 7} y={y(tick) + 4} text-anchor="end">{tick}</text>
	{/each}
	<text class="q" x={right} y={bottom + 33} text-anchor="end">{xLabel}</text>
	<text class="q" x={left - 30} y={top - 9}>{yLabel}</text>
</g>
