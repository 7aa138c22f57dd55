<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Measure from '$lib/format/Measure.svelte';

	const bench = useBench();
	const sources = {
		measured: 'measured',
		set: 'set',
		model: 'estimated by the model',
		rule: 'an ordinary value, not measured'
	};

	function moved(id: string): string | null {
		const before = bench().keptBench.tally.find((e) => e.id === id)?.value;
		const now = bench().bench.tally.find((e) => e.id === id)?.value;
		if (!before || !now || !bench().dirty) return null;
		const difference = now.value - before.value;
		const text = reference.text(Math.abs(difference), now.quantity, false);
		if (!/[1-9]/.test(text)) return null;
		return `${difference > 0 ? '+' : '−'}${text}`;
	}
</script>

<ul aria-label="Tally">
	{#each bench().bench.tally as entry (entry.id)}
		<li class={entry.source}>
			<a href="/rig/{bench().id}/{entry.station}">
				<span class="name">{entry.title}</span>
				<span class="told">
					{#if entry.value}
						{#if entry.source === 'model' || entry.source === 'rule'}<span
								class="about"
								aria-hidden="true">~</span
							>{/if}<Measure value={entry.value} />
						<span class="sr-only">, {sources[entry.source]}</span>
						{#if moved(entry.id)}<span class="moved">{moved(entry.id)}</span>{/if}
					{:else}
						<span class="quiet">cannot be told</span>
					{/if}
				</span>
			</a>
		</li>
	{/each}
</ul>

<style>
	ul {
		list-style: none;
		padding: 0;
		display: flex;
		margin: 0;
		min-width: 0;
		overflow-x: auto;
	}
	li {
		padding: 0 0.8rem;
		border-right: 1px solid var(--line);
	}
	li:first-child {
		padding-left: 0;
	}
	a {
		text-decoration: none;
		display: block;
		min-height: 44px;
	}
	a:hover .name {
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	.name {
		display: block;
		color: var(--quiet);
		font-size: 0.76rem;
		white-space: nowrap;
	}
	.told {
		display: block;
		white-space: nowrap;
		font-size: 0.98rem;
	}
	.measured .told,
	.set .told {
		font-weight: 650;
	}
	.model .told,
	.rule .told {
		color: color-mix(in oklab, var(--ink) 82%, var(--paper));
	}
	.about {
		color: var(--ochre);
		margin-right: 0.1em;
	}
	.moved {
		color: var(--heather);
		font-size: 0.8rem;
		font-weight: 600;
		margin-left: 0.2rem;
	}
	.told :global(.spread),
	.told :global(.unit) {
		font-size: 0.8rem;
		font-weight: 400;
		color: var(--quiet);
	}
</style>
