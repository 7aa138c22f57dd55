<script lang="ts">
	import Label from './Label.svelte';
	import type { Ruler } from './plot';

	/** One line to measure along: its ticks with their numbers underneath. */
	interface Props {
		x: Ruler;
		y: number;
		ticks?: number;
		/** How far the ticks begin under the line, and how far the numbers. */
		from?: number;
		words?: number;
		line?: boolean;
		says?: (tick: number) => string;
	}
	let { x, y, ticks = 5, from = -4, words = 20, line = true, says }: Props = $props();

	const [left, right] = $derived(x.range() as [number, number]);
</script>

{#if line}<path d="M{left} {y}H{right}" stroke="var(--quiet)" />{/if}
{#each x.ticks(ticks) as tick (tick)}
	<path d="M{x(tick)} {y + from}v{from < 0 ? 8 : 5}" stroke="var(--quiet)" />
	<text class="q num" x={x(tick)} y={y + words} text-anchor="middle"
		><Label text={says ? says(tick) : String(tick)} /></text
	>
{/each}
