<script lang="ts">
	import type { Frame } from './frame';

	/** An arrow to scale, its nock throat at (nock, height), the point ahead of it (toward −X). */
	interface Props {
		at: Frame;
		nock: number;
		height?: number;
		lengthIn: number;
		diameterMm: number;
		fletchings?: number;
		ghost?: boolean;
	}
	let {
		at,
		nock,
		height = 0,
		lengthIn,
		diameterMm,
		fletchings = 3,
		ghost = false
	}: Props = $props();

	const half = $derived(Math.max((diameterMm / 25.4 / 2) * at.scale, 0.9));
	const y = $derived(at.y(height));
	const x = (inches: number) => at.x(nock - inches);
	const ink = $derived(ghost ? 'var(--ghost)' : 'var(--ink)');
	const feather = $derived(0.55 * at.scale);
	const tip = $derived(x(lengthIn + 0.95));
</script>

<g>
	<path
		d="M{x(0)} {y - half}L{x(lengthIn)} {y - half}L{x(lengthIn)} {y + half}L{x(0)} {y + half}Z"
		fill={ghost ? ink : 'var(--wood)'}
		stroke={ink}
		stroke-width="0.9"
	/>
	<path
		d="M{x(lengthIn)} {y - half * 1.05}L{x(lengthIn + 0.45)} {y - half * 1.05}L{tip} {y}L{x(
			lengthIn + 0.45
		)} {y + half * 1.05}L{x(lengthIn)} {y + half * 1.05}Z"
		fill={ink}
	/>
	<path
		d="M{x(-0.18)} {y - half}L{x(0.35)} {y - half}L{x(0.35)} {y + half}L{x(-0.18)} {y + half}L{x(
			0
		)} {y}Z"
		fill={ink}
	/>
	{#if fletchings > 0}
		{#each [-1, 1] as side (side)}
			<path
				d="M{x(0.8)} {y + side * half}L{x(1.0)} {y + side * (half + feather)}L{x(2.4)} {y +
					side * (half + feather * 0.85)}L{x(4.8)} {y + side * half}Z"
				fill={side < 0 ? 'var(--heather-wash)' : 'var(--paper)'}
				stroke={ink}
				stroke-width="0.9"
			/>
		{/each}
	{/if}
</g>
