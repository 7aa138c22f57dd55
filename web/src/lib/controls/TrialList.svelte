<script lang="ts">
	import { api, told, type Schemas } from '$lib/api/client';
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

	const MOST = 12;
	const bench = useBench();
	/** Earlier trials, as far as one looked, and of the history they were asked of. */
	let earlier = $state.raw<Schemas['TrialLine'][]>([]);
	let ended = $state.raw<string[]>([]);
	let asked = $state(0);
	let asking = $state(false);
	let fault = $state('');
	const fresh = $derived(asked === bench().kept.seq);
	const lines = $derived(
		[...bench().kept.trials, ...(fresh ? earlier : [])]
			.filter((t) => kinds.includes(t.trial.kind))
			.sort((a, b) => b.day.localeCompare(a.day) || b.seq - a.seq)
	);
	const more = $derived(
		bench().kept.earlier.filter((k) => kinds.includes(k) && !(fresh && ended.includes(k)))
	);

	async function show(): Promise<void> {
		asking = true;
		fault = '';
		const { seq } = bench().kept;
		const wanted = more.map(async (kind) => {
			const last = lines.filter((t) => t.trial.kind === kind).at(-1);
			const query = { kind, after: last?.seq ?? null, most: MOST };
			const params = { path: { id: bench().id }, query };
			return { kind, page: await told(api.GET('/api/rigs/{id}/trials', { params })) };
		});
		try {
			const pages = await Promise.all(wanted);
			const before = fresh ? earlier : [];
			const over = fresh ? ended : [];
			earlier = [...before, ...pages.flatMap((p) => p.page)];
			ended = [...over, ...pages.filter((p) => p.page.length < MOST).map((p) => p.kind)];
			asked = seq;
		} catch (error) {
			fault = (error as Error).message;
		} finally {
			asking = false;
		}
	}
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
						onclick={() => bench().strike(line, !line.struck)}
						>{line.struck ? 'Take in again' : 'Strike out'}</button
					>
				</span>
			</li>
		{/each}
	</ol>
	{#if more.length}
		<p class="files">
			<button class="link" disabled={asking} onclick={show}>Earlier ones</button>
			{#if fault}<span role="alert">{fault}</span>{/if}
		</p>
	{/if}
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
		display: flex;
		flex-wrap: wrap;
		gap: 0 1rem;
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
	@media (max-width: 600px) {
		li {
			grid-template-columns: 1fr;
			gap: 0.1rem;
		}
		li > :first-child {
			color: var(--quiet);
			font-size: 0.86rem;
		}
	}
</style>
