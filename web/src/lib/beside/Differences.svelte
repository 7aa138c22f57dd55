<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';

	/** What differs, what moves most first: what each does by the models, what was tried with it. */
	interface Props {
		differences: Schemas['Difference'][];
		here: string;
		there: string;
		onback?: (difference: Schemas['Difference']) => void;
		waits?: string | null;
	}
	let { differences, here, there, onback, waits }: Props = $props();
	const ROOM = 3; // settings of a part that stand unfolded
</script>

<ol>
	{#each differences as d (d.title)}
		{@const alone = d.rows.length === 1 ? d.rows[0] : undefined}
		{@const tried = [
			[d.mine || (alone ? reference.said(alone.mine) : here), d.trials_mine],
			[d.other || (alone ? reference.said(alone.other) : there), d.trials_other]
		] as const}
		<li>
			<div class="what">
				<h2>{d.title}</h2>
				{#if d.mine || d.other}<p>
						{d.mine || 'none'} <span class="quiet">beside</span>
						{d.other || 'none'}
					</p>{/if}
				{#snippet rows(of: typeof d.rows)}
					<table class:alone={d.rows.length === 1 && !d.mine}>
						<thead>
							<tr><td></td><th scope="col">{here}</th><th scope="col">{there}</th></tr>
						</thead>
						<tbody>
							{#each of as row (row.path)}
								<tr>
									<th scope="row">{d.rows.length > 1 || d.mine ? row.title : ''}</th>
									<td><SaidText said={row.mine} /></td>
									<td class="other"><SaidText said={row.other} /></td>
								</tr>
							{/each}
						</tbody>
					</table>
				{/snippet}
				{@render rows(d.rows.slice(0, ROOM))}
				{#if d.rows.length > ROOM}
					<details>
						<summary class="link"
							>{d.rows.length - ROOM} more {d.rows.length - ROOM === 1
								? 'setting'
								: 'settings'}</summary
						>
						{@render rows(d.rows.slice(ROOM))}
					</details>
				{/if}
			</div>
			<div class="does">
				<p class="head quiet">Brought here, by the models</p>
				{#if d.does.length}
					<ul>
						{#each d.does as said, i (i)}<li><SaidText {said} /></li>{/each}
					</ul>
				{:else}<p>No number moves by a step one could notice.</p>{/if}
				{#each tried as [name, trials], i (i)}
					{#if trials.length}
						<p class="head quiet">Tried with {name}</p>
						<ul>
							{#each trials as said, i (i)}<li><SaidText {said} /></li>{/each}
						</ul>
					{/if}
				{/each}
			</div>
			{#if onback}
				<p class="back">
					{#if d.back}
						<button class="act plain" disabled={!!waits} onclick={() => onback(d)}
							>{d.back.slot ? 'Put it on here' : 'Set it so here'}<span class="sr-only"
								>: {d.title}</span
							></button
						>
					{:else if d.not_back}<span class="quiet"><SaidText said={d.not_back} /></span>{/if}
				</p>
			{/if}
		</li>
	{/each}
</ol>
{#if waits && onback && differences.length}<p class="quiet">{waits}</p>{/if}
{#if differences.some((d) => d.station)}
	<p class="quiet stations">
		Looked at: {[
			...new Set(
				differences.flatMap((d) =>
					(reference.catalog?.stations ?? []).filter((s) => s.id === d.station).map((s) => s.title)
				)
			)
		].join(', ')}.
	</p>
{/if}

<style>
	ol,
	ul {
		list-style: none;
		padding: 0;
		margin: 0;
	}
	ol > li {
		display: grid;
		grid-template-columns: minmax(0, 1.1fr) minmax(0, 1.25fr) 9rem;
		gap: 0.4rem 1.8rem;
		padding: 0.8rem 0;
		border-bottom: 1px solid var(--line);
	}
	h2 {
		font-size: 1.15rem;
		line-height: 1.25;
	}
	table {
		width: 100%;
		margin-top: 0.25rem;
	}
	th,
	td {
		text-align: left;
		font-weight: 400;
		padding: 0.15rem 0.8rem 0.15rem 0;
		vertical-align: baseline;
		width: 30%;
	}
	th {
		width: 40%;
		color: var(--quiet);
		font-size: 0.92rem;
	}
	td {
		font-weight: 600;
		overflow-wrap: anywhere;
	}
	thead th {
		width: 30%;
		font-size: 0.82rem;
	}
	.alone thead td,
	.alone tbody th {
		display: none;
	}
	.alone :is(td, th) {
		width: 50%;
	}
	.other {
		color: var(--heather);
	}
	.does {
		font-size: 0.92rem;
		line-height: 1.4;
	}
	.head {
		font-size: 0.84rem;
	}
	.head ~ .head {
		margin-top: 0.4rem;
	}
	.back {
		font-size: 0.88rem;
		line-height: 1.35;
	}
	summary {
		display: inline-flex;
		align-items: center;
		font-size: 0.9rem;
	}
	.stations {
		font-size: 0.85rem;
		margin-top: 0.6rem;
	}
	@media (max-width: 900px) {
		ol > li {
			grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
		}
		.back {
			grid-column: 1 / -1;
		}
	}
	@media (max-width: 560px) {
		ol > li {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
