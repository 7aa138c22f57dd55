<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import SaidText from '$lib/format/SaidText.svelte';
	import FindingLine from '$lib/frame/FindingLine.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Leaves from '$lib/frame/Leaves.svelte';
	import Differences from './Differences.svelte';
	import NumbersBeside from './NumbersBeside.svelte';

	/** Two sides: what differs first, the numbers, the common plates, what is told of one alone. */
	interface Props {
		view: Schemas['BesideView'];
		/** What the two sides are called in a column's head. */
		here: string;
		there: string;
		onback?: (difference: Schemas['Difference']) => void;
		/** Why nothing can be set here now. */
		waits?: string | null;
	}
	let { view, here, there, onback, waits = null }: Props = $props();
	const told = $derived(view.told);
	const leaves = [
		{ id: 'differs', title: 'What differs' },
		{ id: 'numbers', title: 'Numbers' },
		{ id: 'force', title: 'Force–draw' },
		{ id: 'speed', title: 'Speed' },
		{ id: 'crawls', title: 'Aim' },
		{ id: 'findings', title: 'Findings' }
	];
</script>

<Leaves {leaves}>
	{#snippet leaf(open)}
		{#if open.id === 'differs'}
			<Differences differences={told.differences} {here} {there} {onback} {waits} />
		{:else if open.id === 'numbers'}
			<NumbersBeside numbers={told.numbers} {here} {there} />
		{:else if open.id === 'findings'}
			<div class="two">
				{#each [[here, told.only_mine], [there, told.only_other]] as const as [name, found], side (side)}
					<section>
						<h2>Only {name}</h2>
						{#each found as one, i (one.finding.said.text + i)}
							<p class="at quiet">{one.title}</p>
							<FindingLine finding={one.finding} />
						{:else}<p class="quiet">Nothing that the other is not told too.</p>{/each}
					</section>
				{/each}
			</div>
		{:else}
			<p class="legend">
				<span class="ink">{here}</span><span class="ghost">{there}</span>
			</p>
			<Lazy of={() => import('./PlatesBeside.svelte')} given={{ view, which: open.id }} />
		{/if}
	{/snippet}
</Leaves>
{#if told.differences.length === 0}<p class="quiet"><SaidText said={told.said} /></p>{/if}

<style>
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 2rem;
	}
	h2 {
		font-size: 1.12rem;
		border-bottom: 1px solid var(--line);
	}
	.at {
		font-size: 0.82rem;
		margin: 0.5rem 0 -0.5rem 1.8rem;
	}
	.legend {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.6rem;
		font-size: 0.92rem;
		margin-bottom: 0.4rem;
	}
	.legend span::before {
		content: '';
		display: inline-block;
		width: 1.8rem;
		margin-right: 0.5rem;
		vertical-align: middle;
		border-top: 3px solid var(--ink);
	}
	.legend .ghost::before {
		border-color: var(--ghost);
	}
	@media (max-width: 700px) {
		.two {
			grid-template-columns: 1fr;
		}
	}
</style>
