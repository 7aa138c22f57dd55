<script lang="ts">
	import type { Plot } from './plot';

	/** Thin axes, short ticks, quiet numbers, the unit in the label. */
	interface Props {
		at: Plot;
		xLabel: string;
		yLabel: string;
		xTicks?: number;
		yTicks?: number;
		grid?: boolean;
		/** Places of the ticks across, where they are no round numbers, and what they say. */
		places?: number[];
		says?: (tick: number) => string;
	}
	let { at, xLabel, yLabel, xTicks = 6, yTicks = 5, grid = false, places, says }: Props = $props();

	const { left, right, top, bottom } = $derived(at);
	const across = $derived(places ?? at.x.ticks(xTicks));
	const up = $derived(at.y.ticks(yTicks));
</script>

<g>
	{#if grid}
		{#each up as tick (tick)}
			<path d="M{left} {at.y(tick)}H{right}" stroke="var(--hair)" />
		{/each}
	{/if}
	<path d="M{left} {top}V{bottom}H{right}" fill="none" stroke="var(--quiet)" />
	{#each across as tick (tick)}
		<path d="M{at.x(tick)} {bottom}v4" stroke="var(--quiet)" />
		<text class={says ? 'q' : 'q num'} x={at.x(tick)} y={bottom + 17} text-anchor="middle"
			>{says ? says(tick) : tick}</text
		>
	{/each}
	{#each up as tick (tick)}
		<path d="M{left} {at.y(tick)}h-4" stroke="var(--quiet)" />
		<text class="q num" x={left - 7} y={at.y(tick) + 4} text-anchor="end">{tick}</text>
	{/each}
	<text class="q" x={right} y={bottom + 33} text-anchor="end">{xLabel}</text>
	<text class="q" x={left - 30} y={top - 12}>{yLabel}</text>
</g>
