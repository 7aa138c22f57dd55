<script lang="ts">
	import Label from '$lib/charts/Label.svelte';

	/** A dimension line with its ticks and its label, horizontal or vertical, in pixels. */
	interface Props {
		x1: number;
		y1: number;
		x2: number;
		y2: number;
		label: string;
		accent?: boolean;
		/** Where the label stands: along the line, or at its first or second end. */
		place?: 'middle' | 'start' | 'end';
		below?: boolean;
	}
	let { x1, y1, x2, y2, label, accent = false, place = 'middle', below = false }: Props = $props();

	const upright = $derived(Math.abs(x2 - x1) < Math.abs(y2 - y1));
	const colour = $derived(accent ? 'var(--heather)' : 'var(--quiet)');
	const end = $derived(place === 'start' ? [x1, y1] : [x2, y2]);
	const out = $derived(place === 'start' ? Math.sign(x1 - x2) : Math.sign(x2 - x1));
</script>

<g>
	<path d="M{x1} {y1}L{x2} {y2}" stroke={colour} fill="none" />
	{#each [[x1, y1], [x2, y2]] as [x, y], i (i)}
		<path
			d={upright ? `M${x! - 4} ${y! + 3}l8 -6` : `M${x! - 3} ${y! + 4}l6 -8`}
			stroke={colour}
			stroke-width="1.4"
		/>
	{/each}
	{#if place !== 'middle' && !upright}
		<text
			class="halo"
			x={end[0]! + out * 8}
			y={end[1]! + 4}
			text-anchor={out > 0 ? 'start' : 'end'}
			style:fill={accent ? 'var(--heather)' : undefined}
			style:font-weight={accent ? 600 : 400}><Label text={label} /></text
		>
	{:else if upright}
		<text
			class="halo"
			x={x1 + 9}
			y={(y1 + y2) / 2 + 4}
			style:fill={accent ? 'var(--heather)' : undefined}
			style:font-weight={accent ? 600 : 400}><Label text={label} /></text
		>
	{:else}
		<text
			class="halo"
			x={(x1 + x2) / 2}
			y={y1 + (below ? 15 : -6)}
			text-anchor="middle"
			style:fill={accent ? 'var(--heather)' : undefined}
			style:font-weight={accent ? 600 : 400}><Label text={label} /></text
		>
	{/if}
</g>
