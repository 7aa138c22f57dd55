<script lang="ts">
	import type { Plot, Tone } from './plot';

	/** A place across the chart, marked up to a height of it (or to its top). */
	interface Props {
		at: Plot;
		x: number;
		/** How high the mark reaches; across to the axis too where asked. */
		y?: number;
		across?: boolean;
		tone?: Tone;
		dash?: string;
	}
	let { at, x, y, across = false, tone = 'heather', dash = '4 3' }: Props = $props();

	const to = $derived(y === undefined ? at.top : at.y(y));
</script>

<path
	d="M{at.x(x)} {at.bottom}V{to}{across ? `H${at.left}` : ''}"
	fill="none"
	stroke="var(--{tone})"
	stroke-dasharray={dash}
/>
