<script module lang="ts">
	/** How a tail stands in the butt seen from the side, its key on the number block, its tilt [°]. */
	export const TAILS = [
		{ id: 'high', key: '8', word: 'Tail high', turn: 9 },
		{ id: 'level', key: '5', word: 'Level', turn: 0 },
		{ id: 'low', key: '2', word: 'Tail low', turn: -9 }
	] as const;
	export type Tail = (typeof TAILS)[number];
</script>

<script lang="ts">
	let { turn, width = 46 }: { turn: number; width?: number } = $props();
</script>

<svg {width} height={(width * 26) / 46} viewBox="0 0 46 26" aria-hidden="true">
	<rect x="0" y="1" width="7" height="24" fill="var(--wood)" stroke="var(--quiet)" />
	<g transform="rotate({-turn} 7 13)">
		<path d="M4 13H42M34 13L41 8M34 13L41 18" stroke="currentColor" fill="none" />
	</g>
</svg>
