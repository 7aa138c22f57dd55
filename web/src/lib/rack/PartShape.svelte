<script lang="ts">
	/** A part drawn small and to scale: a longer bow is longer. */
	let {
		kind,
		size,
		inch = 2
	}: { kind: string; size: number | null; /** Pixels for an inch. */ inch?: number } = $props();
	const w = $derived((size ?? 0) * inch);
	const H = 26;
	const y = H / 2;
</script>

{#if size == null}
	<span class="none">size not set</span>
{:else}
	<svg width={w + 8} height={H} viewBox="-4 0 {w + 8} {H}" aria-hidden="true">
		{#if kind === 'bow'}
			<path
				d="M0 {y - 6} Q {w * 0.1} {y + 6} {w * 0.3} {y + 3} L {w * 0.7} {y + 3} Q {w * 0.9} {y +
					6} {w} {y - 6}"
				class="ink"
			/>
			<rect x={w * 0.42} y={y + 0.5} width={w * 0.16} height="5.5" class="wood" />
		{:else if kind === 'riser'}
			<path
				d="M0 {y} L {w * 0.3} {y - 3} L {w * 0.45} {y + 4} L {w * 0.58} {y + 4} L {w * 0.68} {y -
					3} L {w} {y} L {w} {y + 4} L {w * 0.6} {y + 8} L {w * 0.4} {y + 8} L 0 {y + 4} Z"
				class="wood ink"
			/>
		{:else if kind === 'limb'}
			<path d="M0 {y + 5} L {w * 0.85} {y + 2.4} Q {w * 0.97} {y} {w} {y - 7}" class="ink" />
			<path d="M0 {y + 7.4} L {w * 0.5} {y + 4.6}" class="ink thin" />
		{:else if kind === 'string'}
			<path d="M5 {y} L {w - 4} {y}" class="ink thin" />
			<circle cx="2.6" cy={y} r="2.6" class="ink thin" />
			<circle cx={w - 2} cy={y} r="2" class="ink thin" />
			<path d="M{w * 0.45} {y} L {w * 0.55} {y}" class="ink serving" />
		{:else if kind === 'arrows'}
			<path d="M0 {y} L {w} {y}" class="ink thin" />
			<path d="M{w} {y} l -5 -2.6 v 5.2 Z" class="fill" />
			<path d="M3 {y} l 3 -5 h 9 l -3 5 l 3 5 h -9 Z" class="wood ink thin" />
		{:else}
			<path d="M0 {y} L {w} {y}" class="ink thin" />
			<path d="M0 {y - 5} v 10 M {w} {y - 5} v 10" class="ink thin" />
		{/if}
	</svg>
{/if}

<style>
	svg {
		display: block;
		max-width: 100%;
	}
	.ink {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.8;
		stroke-linecap: round;
		stroke-linejoin: round;
	}
	.thin {
		stroke-width: 1.1;
	}
	.serving {
		stroke-width: 2.6;
	}
	.wood {
		fill: var(--wood);
		stroke: var(--ink);
		stroke-width: 0.8;
	}
	.fill {
		fill: var(--ink);
	}
	.none {
		font-size: 0.82rem;
		color: var(--quiet);
	}
</style>
