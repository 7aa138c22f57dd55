<script lang="ts">
	import type { Plot, Washed } from './plot';

	/** A region across the chart, over its whole height or along its foot, held to its edges. */
	interface Props {
		at: Plot;
		from: number;
		to: number;
		tone?: Washed;
		/** Along the foot only: an interval of what is marked there. */
		foot?: boolean;
	}
	let { at, from, to, tone = 'heather', foot = false }: Props = $props();

	const held = (v: number) => Math.min(Math.max(at.x(v), at.left), at.right);
	const left = $derived(held(from));
	const width = $derived(Math.max(held(to) - left, foot ? 2 : 0));
</script>

{#if foot}
	<rect x={left} y={at.bottom - 5} {width} height="5" fill="var(--{tone})" opacity="0.6" />
{:else}
	<rect x={left} y={at.top} {width} height={at.bottom - at.top} fill="var(--{tone}-wash)" />
{/if}
