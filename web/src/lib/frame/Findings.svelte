<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import type { Finding, StationView } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import FindingLine from './FindingLine.svelte';
	import Glyph from './Glyph.svelte';

	/** Where there is little room the two most serious stand, the others at a touch. */
	let { station, brief = false }: { station: StationView | undefined; brief?: boolean } = $props();
	let all = $state(false);
	const BRIEF = 2;

	const bench = useBench();
	const due = $derived(station ? bench().state(station.station) : undefined);
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
		if (action.rack_lbf != null) {
			const who = bench().bench.rig.on?.archer ?? '';
			await goto(`/rack/fit?archer=${who}&most=${Math.floor(action.rack_lbf * 10) / 10}`);
			return;
		}
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
			<Glyph level="due" />
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
		<FindingLine {finding}>
			{#if finding.action}
				<button class="link" onclick={() => act(finding)}
					>{reference.said(finding.action.label)}</button
				>
			{/if}
		</FindingLine>
	{/each}
	{#if folded.length}
		<button class="link folded" aria-expanded="false" onclick={() => (all = true)}
			>{room > 0 || due?.state === 'due' ? 'and ' : ''}{folded.join(', ')}</button
		>
	{:else if brief && all}
		<button class="link folded" aria-expanded="true" onclick={() => (all = false)}>fewer</button>
	{/if}
</aside>

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
	.brief {
		--finding-room: 0.4rem;
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
</style>
