<script lang="ts">
	import type { Snippet } from 'svelte';
	import { useRoom, within } from '$lib/frame/room';

	interface Props {
		/** What the drawing shows, for who cannot see it. */
		label: string;
		/** As high as it is drawn where there is room; it gives way down to the least. */
		height?: number | ((width: number) => number);
		least?: number;
		/** Whether something in it is worked by keys; a picture alone is one thing to a reader. */
		worked?: boolean;
		children: Snippet<[width: number, height: number]>;
		/** The same as a table: heads and rows of text. */
		heads?: string[];
		rows?: string[][];
	}
	let {
		label,
		height: wanted = 420,
		least,
		worked = false,
		children,
		heads,
		rows
	}: Props = $props();
	const room = useRoom();
	let width = $state(720);
	const wished = $derived(typeof wanted === 'function' ? wanted(width) : wanted);
	const height = $derived(within(room(), wished, least ?? wished * 0.6));
</script>

<figure bind:clientWidth={width} aria-label={label}>
	<svg
		{width}
		{height}
		viewBox="0 0 {width} {height}"
		role={worked ? 'group' : 'img'}
		aria-label={label}
	>
		{@render children(width, height)}
	</svg>
	{#if heads && rows?.length}
		<details>
			<summary class="link">As a table</summary>
			<div class="scroll">
				<table>
					<thead
						><tr
							>{#each heads as head (head)}<th scope="col">{head}</th>{/each}</tr
						></thead
					>
					<tbody>
						{#each rows as row, i (i)}<tr
								>{#each row as cell, j (j)}<td>{cell}</td>{/each}</tr
							>{/each}
					</tbody>
				</table>
			</div>
		</details>
	{/if}
</figure>

<style>
	figure {
		margin: 0;
		width: 100%;
		min-width: 0;
	}
	svg {
		display: block;
		width: 100%;
		overflow: visible;
	}
	figure :global(text) {
		font-size: 12.5px;
		fill: var(--ink);
	}
	figure :global(text.q) {
		fill: var(--quiet);
	}
	/* A halo of paper keeps labels legible where they cross a line. */
	figure :global(text.halo) {
		paint-order: stroke;
		stroke: var(--paper);
		stroke-width: 5px;
		stroke-linejoin: round;
	}
	details {
		font-size: 0.85rem;
		text-align: right;
	}
	summary {
		list-style: none;
		display: inline-flex;
		align-items: center;
		font-weight: 400;
		color: var(--quiet);
	}
	.scroll {
		max-height: 14rem;
		overflow: auto;
		text-align: left;
		border-top: 1px solid var(--hair);
	}
	table {
		width: 100%;
	}
	th {
		text-align: right;
		font-weight: 600;
		padding: 0.15rem 0.6rem;
	}
	td {
		text-align: right;
		padding: 0.1rem 0.6rem;
	}
</style>
