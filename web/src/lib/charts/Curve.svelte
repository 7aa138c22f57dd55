<script lang="ts">
	import { area, curveLinear, curveMonotoneX, line } from 'd3-shape';
	import type { Pair, Plot, Tone, Washed } from './plot';

	/** What is computed, drawn through its points; as a ghost what is kept. */
	interface Props {
		at: Plot;
		points: readonly Pair[];
		tone?: Tone;
		width?: number;
		dash?: string;
		/** Fill what lies under it, down to the axis. */
		filled?: Washed;
		/** Computed at few places: without corners between them. */
		smooth?: boolean;
	}
	let { at, points, tone = 'ink', width = 1.8, dash, filled, smooth = false }: Props = $props();

	const x = (p: Pair) => at.x(p[0]);
	const y = (p: Pair) => at.y(p[1]);
	const drawn = $derived(
		line<Pair>(x, y).curve(smooth ? curveMonotoneX : curveLinear)([...points])
	);
	const under = $derived(filled ? area<Pair>(x, at.bottom, y)([...points]) : null);
</script>

{#if under}<path d={under} fill="var(--{filled}-wash)" />{/if}
<path d={drawn} fill="none" stroke="var(--{tone})" stroke-width={width} stroke-dasharray={dash} />
