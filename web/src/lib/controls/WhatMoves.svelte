<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { changes } from '$lib/bench/passing.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import NockUpPlate from '$lib/plates/NockUpPlate.svelte';

	/** What would move the shaft on this rig, how far the model is to be believed, and the nock point. */
	const asked = changes(useBench());
	const told = $derived(asked.told);
</script>

{#if asked.problem}
	<p role="alert">{asked.problem}</p>
{:else if !told}
	<p class="quiet" aria-busy="true">One moment …</p>
{:else if told.movers.length}
	<ul class="moves">
		{#each told.movers as m (m.id)}
			<li class:unsure={m.groups == null}>
				<span><SaidText said={m.said} /></span>
				<span class="quiet">agree {reference.text(100 * m.share, 'percent')}</span>
			</li>
		{/each}
	</ul>
	<p class="quiet">
		“Agree”: of random bows, on how many the model moves a bare shaft to the side that archers
		report. Where they seldom agree no side is told.
	</p>
	{#if told.side}
		<h2>The nock point, seen from the side</h2>
		<NockUpPlate side={told.side} />
	{/if}
{:else}
	<p>Outside the bows that the model was tuned to nothing is told of what moves a shaft.</p>
{/if}

<style>
	.moves {
		padding: 0;
		list-style: none;
	}
	.moves li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 1rem;
		align-items: baseline;
		padding: 0.45rem 0;
		border-bottom: 1px solid var(--hair);
	}
	.unsure {
		color: var(--quiet);
	}
</style>
