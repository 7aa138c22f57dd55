<script lang="ts">
	import type { Snippet } from 'svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import Findings from './Findings.svelte';
	import Leaves from './Leaves.svelte';
	import { putRoom } from './room';
	import { screen } from './window.svelte';

	/** One side of a station's work: its plate, what is done under it, and what was done before. */
	interface Leaf {
		id: string;
		title: string;
		plate?: Snippet;
		body: Snippet;
		/** What follows below the fold: lists, tables. */
		more?: Snippet;
		/** Whether the body is a row of fields. */
		fields?: boolean;
		/** Whether this is where the `t` key leads: the station's own trial. */
		trial?: boolean;
	}
	/** A station's page: its question, its answer, and its leaves with a plate each. */
	interface Props {
		id: string;
		plate: Snippet;
		controls: Snippet;
		more?: Snippet;
		/** What the first leaf is called. */
		first?: string;
		leaves?: Leaf[];
	}
	let { id, plate, controls, more, first = 'As it is', leaves = [] }: Props = $props();

	const bench = useBench();
	const view = $derived(bench().bench.stations.find((s) => s.station === id));
	const note = $derived(reference.catalog?.stations.find((s) => s.id === id));
	const all = $derived<Leaf[]>([
		{ id: 'set', title: first, plate, body: controls, more, fields: true },
		...leaves
	]);

	let page = $state<HTMLElement>();
	let body = $state<HTMLElement>();
	let free = $state<number | null>(null);
	const RIM = 10;

	/** Only the middle column scrolls: the plate gives way before what is done under it does. */
	function look(column: HTMLElement, leaf: HTMLElement): void {
		const work = leaf.querySelector('.fields') ?? leaf.querySelector('form');
		if (screen.folded || !work) {
			free = null;
			return;
		}
		const from = column.getBoundingClientRect().top - column.scrollTop;
		const end = work.getBoundingClientRect().bottom - from;
		const drawn = [...leaf.querySelectorAll('figure > svg')]
			.filter((svg) => svg.compareDocumentPosition(work) === Node.DOCUMENT_POSITION_FOLLOWING)
			.reduce((sum, svg) => sum + svg.clientHeight, 0);
		free = column.clientHeight - (end - drawn) - RIM;
	}
	$effect(() => {
		const column = page?.closest('main');
		const leaf = body;
		if (!column || !leaf) return;
		const see = new ResizeObserver(() => look(column, leaf));
		see.observe(column);
		see.observe(leaf);
		if (page) see.observe(page);
		return () => see.disconnect();
	});
	putRoom(() => free);
</script>

<svelte:head><title>{note?.title} · {bench().bench.rig.name} · Lyrandis</title></svelte:head>

{#if view}
	<div class="station" bind:this={page}>
		<header>
			<h1>{note?.question}</h1>
			<p class="answer" aria-live="polite"><SaidText said={view.answer} strong /></p>
			{#if bench().fault}<p class="fault" role="alert">{bench().fault}</p>{/if}
			{#if screen.folded}<Findings station={view} brief />{/if}
		</header>
		<Leaves leaves={all}>
			{#snippet leaf(open)}
				<div bind:this={body}>
					{#if open.plate}
						<div class="plate" class:stale={view.problem}>{@render open.plate()}</div>
					{/if}
					<div class:fields={open.fields}>{@render open.body()}</div>
					{#if open.more}<div class="more">{@render open.more()}</div>{/if}
				</div>
			{/snippet}
		</Leaves>
		{#if note?.tools.length}
			<details class="tools">
				<summary
					>At hand: <span class="quiet names">{note.tools.map((t) => t.name).join(' · ')}</span
					></summary
				>
				<dl>
					{#each note.tools as tool (tool.name)}
						<div>
							<dt>{tool.name}</dt>
							<dd>without it: {tool.without}</dd>
						</div>
					{/each}
				</dl>
			</details>
		{/if}
	</div>
{:else if note}
	<div class="station">
		<h1>{note.title}</h1>
		<p class="answer">
			This rig is on the route for {bench().bench.route.bows}, which does not pass here.
			<a class="link" href="/rig/{bench().id}/bow-length">Choose another route at Bow length</a>.
		</p>
	</div>
{/if}

<style>
	h1 {
		font-size: 2.05rem;
	}
	.answer {
		font-size: 1.06rem;
		margin: 0.3rem 0 0.6rem;
		text-wrap: pretty;
	}
	.fault {
		color: var(--brick);
	}
	.plate {
		margin-bottom: 0.5rem;
	}
	.fields {
		border-top: 1px solid var(--line);
		padding-top: 0.6rem;
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(7.4rem, 1fr));
		gap: 0.4rem 1.3rem;
		align-items: start;
	}
	.fields :global(.wide) {
		grid-column: span 2;
	}
	.fields :global(.three) {
		grid-column: span 3;
	}
	.fields :global(.whole) {
		grid-column: 1 / -1;
	}
	.tools {
		border-top: 1px solid var(--line);
		margin-top: 0.8rem;
		padding-top: 0.5rem;
		font-size: 0.92rem;
	}
	.tools summary {
		cursor: pointer;
		min-height: 24px;
	}
	.tools .names {
		margin-left: 0.3rem;
	}
	.tools dl {
		margin: 0.4rem 0 0;
	}
	.tools dl div {
		display: flex;
		flex-wrap: wrap;
		gap: 0 0.7rem;
		padding: 0.1rem 0;
	}
	.tools dd {
		margin: 0;
		color: var(--quiet);
	}
	.more {
		border-top: 1px solid var(--line);
		margin-top: 0.8rem;
		padding-top: 0.8rem;
	}
	@media (max-width: 900px) {
		h1 {
			font-size: 1.6rem;
		}
		.tools summary {
			min-height: 44px;
		}
	}
	@media (max-width: 480px) {
		.fields {
			grid-template-columns: 1fr 1fr;
		}
		.fields :global(.three) {
			grid-column: 1 / -1;
		}
	}
</style>
