<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import type { Finding, StationView } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';

	/** Where there is little room the two most serious stand, the others at a touch. */
	let { station, brief = false }: { station: StationView | undefined; brief?: boolean } = $props();
	let all = $state(false);
	const BRIEF = 2;

	const bench = useBench();
	const due = $derived(station ? bench().state(station.station) : undefined);
	const words = { stop: 'Stop', mind: 'Mind', fine: 'Fine' };
	const whose = {
		model: 'by the bow model',
		practice: 'from practice',
		rule: 'a rule of thumb',
		maker: "the maker's word",
		measured: 'measured'
	};

	const findings = $derived(station?.findings ?? []);
	const serious = $derived(findings.filter((f) => f.level !== 'fine').length);
	const room = $derived(
		brief && !all ? Math.min(BRIEF - (due?.state === 'due' ? 1 : 0), serious) : findings.length
	);
	/** The findings that are folded away, counted by level. */
	const folded = $derived.by(() => {
		const levels = findings.slice(room).map((f) => f.level);
		return (['stop', 'mind', 'fine'] as const)
			.map((level) => [level, levels.filter((l) => l === level).length] as const)
			.filter(([, count]) => count > 0)
			.map(([level, count]) => `${count} ${level}`);
	});

	async function act(finding: Finding): Promise<void> {
		const action = finding.action;
		if (!action) return;
		if (action.station && action.station !== station?.station)
			await goto(`/rig/${bench().id}/${action.station}`);
		const changes = (action.changes ?? {}) as Record<string, unknown>;
		// Where the archer chose to stay with changes not kept, nothing is added to them.
		if (!action.station || page.url.pathname.endsWith(action.station)) bench().setAll(changes);
	}
</script>

<aside aria-label="Findings" class:brief>
	<h2 class:sr-only={brief}>Findings</h2>
	{#if due?.state === 'due'}
		<section class="stop">
			{@render glyph('due')}
			<div>
				<p>
					<span class="word">Recheck.</span>
					{#each due.reasons as reason, i (i)}<span class="reason"><SaidText said={reason} /></span
						>{/each}
				</p>
				<button class="link" onclick={() => bench().check(due.station, 'provisional')}
					>Checked, it holds</button
				>
			</div>
		</section>
	{/if}
	{#each findings.slice(0, room) as finding, i (finding.said.text + i)}
		<section class={finding.level}>
			{@render glyph(finding.level)}
			<div>
				<p><span class="word">{words[finding.level]}.</span> <SaidText said={finding.said} /></p>
				<div class="more">
					<details>
						<summary class="link">Why</summary>
						<p><SaidText said={finding.why} /> <em>({whose[finding.told]})</em></p>
					</details>
					{#if finding.action}
						<button class="link" onclick={() => act(finding)}
							>{reference.said(finding.action.label)}</button
						>
					{/if}
				</div>
			</div>
		</section>
	{/each}
	{#if folded.length}
		<button class="link folded" aria-expanded="false" onclick={() => (all = true)}
			>{room > 0 || due?.state === 'due' ? 'and ' : ''}{folded.join(', ')}</button
		>
	{:else if brief && all}
		<button class="link folded" aria-expanded="true" onclick={() => (all = false)}>fewer</button>
	{/if}
</aside>

{#snippet glyph(level: 'stop' | 'mind' | 'fine' | 'due')}
	<svg viewBox="0 0 18 18" width="18" height="18" aria-hidden="true">
		{#if level === 'stop'}
			<path d="M5.5 1.5h7l4 4v7l-4 4h-7l-4-4v-7Z" fill="var(--brick)" />
			<path d="M5 9h8" stroke="var(--paper)" stroke-width="2.2" />
		{:else if level === 'due'}
			<path d="M9 1.5 16.5 9 9 16.5 1.5 9Z" fill="none" stroke="var(--brick)" stroke-width="1.6" />
			<path d="M9 5v5M9 12v1.2" stroke="var(--brick)" stroke-width="1.6" />
		{:else if level === 'mind'}
			<path d="M3 9h12M9 3v12" stroke="none" />
			<circle cx="9" cy="9" r="7" fill="none" stroke="var(--ochre)" stroke-width="1.5" />
			<path d="M9 4.8v5.4M9 12v1.4" stroke="var(--ochre)" stroke-width="1.7" />
		{:else}
			<path d="m3 9.5 4 4L15 5" fill="none" stroke="var(--moss)" stroke-width="1.8" />
		{/if}
	</svg>
{/snippet}

<style>
	aside {
		padding: 1.4rem 1.3rem 1rem;
		overflow-y: auto;
		height: 100%;
	}
	aside.brief {
		padding: 0 0 0.5rem;
		overflow: visible;
		height: auto;
	}
	.brief section {
		padding: 0.4rem 0;
	}
	h2 {
		font-size: 1.12rem;
		font-weight: 600;
		margin-bottom: 0.2rem;
	}
	section {
		display: grid;
		grid-template-columns: 18px 1fr;
		gap: 0.65rem;
		padding: 0.7rem 0;
		border-bottom: 1px solid var(--hair);
		font-size: 0.93rem;
	}
	section :global(svg) {
		margin-top: 0.12rem;
	}
	.reason {
		margin-right: 0.3em;
	}
	.word {
		font-weight: 700;
	}
	.stop .word {
		color: var(--brick);
	}
	.mind .word {
		color: var(--ochre);
	}
	.fine .word {
		color: var(--moss);
	}
	.more {
		display: flex;
		flex-wrap: wrap;
		gap: 0.15rem 1rem;
		margin-top: 0.2rem;
		font-size: 0.88rem;
	}
	details {
		max-width: 100%;
	}
	details[open] {
		flex-basis: 100%;
	}
	details p {
		color: var(--quiet);
		margin: 0.25rem 0 0.2rem;
		line-height: 1.35;
	}
	summary {
		list-style: none;
		display: inline-flex;
		align-items: center;
	}
	summary::-webkit-details-marker {
		display: none;
	}
</style>
