<script lang="ts">
	import Label from './Label.svelte';
	import type { Tone } from './plot';

	/** Words in a chart, in pixels, on a halo of paper. */
	interface Props {
		x: number;
		y: number;
		text: string;
		tone?: Tone;
		anchor?: 'start' | 'middle' | 'end';
		strong?: boolean;
	}
	let { x, y, text, tone = 'heather', anchor = 'middle', strong = false }: Props = $props();
</script>

<text
	class="halo"
	{x}
	{y}
	text-anchor={anchor}
	style:fill="var(--{tone})"
	style:font-weight={strong ? 600 : undefined}><Label {text} /></text
>
