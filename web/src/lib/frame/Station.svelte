<script lang="ts">
	import type { Snippet } from 'svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';

	/** A station's page: its question, its answer, its plate, its controls, and more below. */
	interface Props {
		id: string;
		plate: Snippet;
		controls: Snippet;
		more?: Snippet;
	}
	let { id, plate, controls, more }: Props = $props();

	const bench = useBench();
	const view = $derived(bench().bench.stations.find((s) => s.station === id));
	const note = $derived(reference.catalog?.stations.find((s) => s.id === id));
</script>

<svelte:head><title>{note?.title} · {bench().bench.rig.name} · Lyrandis</title></svelte:head>

{#if view}
	<header>
		<h1>{note?.question}</h1>
		<p class="answer" aria-live="polite"><SaidText said={view.answer} strong /></p>
		{#if bench().fault}<p class="fault" role="alert">{bench().fault}</p>{/if}
	</header>
	<div class="plate" class:stale={view.problem}>{@render plate()}</div>
	<div class="controls">{@render controls()}</div>
	{#if more}<div class="more">{@render more()}</div>{/if}
{/if}

<style>
	h1 {
		font-size: 2.05rem;
	}
	.answer {
		font-size: 1.06rem;
		margin: 0.3rem 0 0.5rem;
		text-wrap: pretty;
	}
	.fault {
		color: var(--brick);
	}
	.controls {
		border-top: 1px solid var(--line);
		margin-top: 0.6rem;
		padding-top: 0.75rem;
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(7.4rem, 1fr));
		gap: 0.4rem 1.3rem;
		align-items: start;
	}
	.controls :global(.wide) {
		grid-column: span 2;
	}
	.controls :global(.three) {
		grid-column: span 3;
	}
	.controls :global(.whole) {
		grid-column: 1 / -1;
	}
	.more {
		border-top: 1px solid var(--line);
		margin-top: 0.8rem;
		padding-top: 0.8rem;
	}
</style>
