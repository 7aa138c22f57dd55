<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { day } from '$lib/format/day';
	import SaidText from '$lib/format/SaidText.svelte';

	/** Trials of some kinds, the latest first: struck out and taken in again, never lost. */
	interface Props {
		kinds: string[];
		empty: string;
		/** The kind that can be put right here, and how. */
		edits?: string;
		onedit?: (trial: Schemas['TrialLine']) => void;
	}
	let { kinds, empty, edits, onedit }: Props = $props();

	const bench = useBench();
	const lines = $derived(bench().kept.trials.filter((t) => kinds.includes(t.trial.kind)));
	/** The kinds of which at least one stands. */
	const present = $derived(
		kinds.filter((kind) => lines.some((t) => t.trial.kind === kind && !t.struck))
	);
	const words = $derived(reference.catalog?.trials ?? {});
</script>

{#if lines.length === 0}
	<p class="quiet">{empty}</p>
{:else}
	<ol aria-label="Trials">
		{#each lines as line (line.seq)}
			<li class:struck={line.struck}>
				<span class="quiet">{day(line.day)}</span>
				<span
					><SaidText said={line.said} /> <em>{line.trial.notes}</em>{#if line.moved.length}<span
							class="moved">{line.moved.join(', ')} changed since</span
						>{/if}</span
				>
				<span class="deeds">
					{#if onedit && line.trial.kind === edits && !line.struck}
						<button class="link" onclick={() => onedit(line)}>Put right</button>
					{/if}
					<button
						class="link"
						disabled={bench().busy}
						onclick={() => bench().strike(line.seq, !line.struck)}
						>{line.struck ? 'Take in again' : 'Strike out'}</button
					>
				</span>
			</li>
		{/each}
	</ol>
	<p class="files">
		{#each present as kind (kind)}
			<a class="link" href="/api/rigs/{bench().id}/trials/{kind}" download>{words[kind]} as CSV</a>
		{/each}
	</p>
{/if}

<style>
	ol {
		list-style: none;
		padding: 0;
	}
	li {
		display: grid;
		grid-template-columns: 7rem 1fr auto;
		gap: 0.9rem;
		padding: 0.28rem 0;
		border-bottom: 1px solid var(--hair);
		font-size: 0.93rem;
	}
	.moved {
		display: block;
		color: var(--quiet);
		font-size: 0.86rem;
	}
	.files {
		margin-top: 0.5rem;
	}
	.struck span:not(.deeds) {
		text-decoration: line-through;
		color: var(--quiet);
	}
	em {
		color: var(--quiet);
	}
	.deeds {
		display: flex;
		gap: 1rem;
		font-size: 0.86rem;
	}
	p {
		font-size: 0.9rem;
	}
</style>
