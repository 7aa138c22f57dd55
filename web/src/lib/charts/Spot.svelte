<script lang="ts">
	import type { Plot, Tone } from './plot';

	/** A point, by where it comes from; with its ± where it has one. */
	interface Props {
		at: Plot;
		x: number;
		y: number;
		/** measured: a cross; single: one of several readings, a ring; estimated: hollow; own: full. */
		of: 'measured' | 'single' | 'estimated' | 'own';
		tone?: Tone;
		size?: number;
		spread?: readonly [low: number, high: number];
	}
	let { at, x, y, of, tone = 'heather', size = 5, spread }: Props = $props();

	const cx = $derived(at.x(x));
	const cy = $derived(at.y(y));
</script>

{#if spread}
	<path
		d="M{cx} {at.y(spread[0])}V{at.y(spread[1])}"
		stroke="var(--{tone})"
		stroke-width="2.5"
		opacity="0.45"
	/>
{/if}
{#if of === 'measured'}
	<path d="M{cx - 5} {cy}h10m-5 -5v10" stroke="var(--{tone})" stroke-width="1.8" />
{:else if of === 'single'}
	<circle {cx} {cy} r="2.6" fill="none" stroke="var(--quiet)" />
{:else}
	<circle
		{cx}
		{cy}
		r={size}
		fill="var(--{of === 'own' ? tone : 'paper'})"
		stroke="var(--{tone})"
		stroke-width={of === 'own' ? 0 : 1.5}
	/>
{/if}
