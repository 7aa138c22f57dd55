<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';

	/** A word with what it means, how it is measured, and where schools do it otherwise. */
	interface Props {
		term: Schemas['Term'];
		lit: boolean;
		/** Where it stands a second time it is no place to link to. */
		anchor?: boolean;
		onlit: () => void;
	}
	let { term, lit, anchor = true, onlit }: Props = $props();

	const unit = $derived(term.quantity ? reference.unit(term.quantity).label : '');
</script>

<article id={anchor ? term.id : undefined} class:lit>
	<h3><button aria-pressed={lit} onclick={onlit}>{term.word}</button></h3>
	<p><SaidText said={term.says} /></p>
	{#if term.measured || unit}
		<p class="quiet">
			{#if term.measured}<SaidText said={term.measured} />{/if}
			{#if unit}Unit: {unit}.{/if}
		</p>
	{/if}
	{#if term.schools.length}
		<ul>
			{#each term.schools as school (school.name)}
				<li><em>{school.name}</em>: <SaidText said={school.says} /></li>
			{/each}
		</ul>
	{/if}
</article>

<style>
	article {
		break-inside: avoid;
		border-left: 3px solid transparent;
		padding: 0.15rem 0 0.55rem 0.7rem;
		font-size: 0.93rem;
		line-height: 1.38;
		scroll-margin: 4rem;
	}
	.lit {
		border-left-color: var(--heather);
		background: var(--heather-wash);
	}
	h3 {
		font-size: 1.05rem;
		font-weight: 600;
	}
	button {
		background: none;
		border: 0;
		padding: 0;
		cursor: pointer;
		text-align: left;
	}
	button:hover {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	ul {
		margin: 0.15rem 0 0;
		padding-left: 1rem;
		list-style: '– ';
	}
</style>
