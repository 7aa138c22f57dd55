<script lang="ts">
	import { page } from '$app/state';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import Mark from './Mark.svelte';
	import StateMark from './StateMark.svelte';

	let { onPreferences, onKeys }: { onPreferences: () => void; onKeys: () => void } = $props();

	const bench = useBench();
	const rig = $derived(bench().bench.rig);
	const base = $derived(`/rig/${bench().id}`);
	const here = $derived(page.url.pathname.split('/').pop());
	const words = { open: 'open', provisional: 'provisional', settled: 'settled', due: 'recheck' };
	/** Whether the list of rigs was asked for: it is a heavy thing for one line of text. */
	let asked = $state(false);
</script>

{#snippet rigLine()}
	<strong>{rig.name}</strong>
	<span>{rig.archer.hand} hand · {reference.word('archer.release', rig.archer.release)} ▾</span>
{/snippet}

<nav aria-label="Rig and route">
	<a class="brand" href="/"><Mark /><span>Lyrandis</span></a>

	{#if asked}
		{#await import('./RigMenu.svelte')}
			<button class="switcher">{@render rigLine()}</button>
		{:then { default: RigMenu }}
			<RigMenu id={bench().id} {here}>{@render rigLine()}</RigMenu>
		{/await}
	{:else}
		<button class="switcher" aria-haspopup="menu" onclick={() => (asked = true)}
			>{@render rigLine()}</button
		>
	{/if}

	<ol>
		{#each reference.catalog?.stations ?? [] as station (station.id)}
			{@const state = bench().state(station.id)}
			{@const view = bench().bench.notes.find((s) => s.station === station.id)}
			{@const reasons = (state?.reasons ?? []).map((r) => reference.said(r)).join(' ')}
			<li class={state?.state}>
				<a
					href="{base}/{station.id}"
					aria-current={here === station.id ? 'page' : undefined}
					title={reasons || undefined}
				>
					<StateMark state={state?.state ?? 'open'} />
					<span class="name">{station.title}</span>
					<span class="note">
						{#if state?.state === 'due'}
							recheck: {state.moved.join(', ')}<span class="sr-only">. {reasons}</span>
						{:else}
							<span class="sr-only">{words[state?.state ?? 'open']}: </span>{#if view}<SaidText
									said={view.note}
								/>{/if}
						{/if}
					</span>
				</a>
			</li>
		{/each}
	</ol>

	<div class="foot">
		<a href="{base}/keep" aria-current={here === 'keep' ? 'page' : undefined}>Logbook</a>
		<a href="{base}/schedule" aria-current={here === 'schedule' ? 'page' : undefined}>Schedule</a>
		<a href="/api/rigs/{bench().id}/sheet" target="_blank" rel="noopener">Print sheet</a>
		<button onclick={onPreferences}>Units</button>
		<button onclick={onKeys}>Keys</button>
	</div>
</nav>

<style>
	nav {
		padding: 1.1rem 0 0.8rem 1.35rem;
		height: 100%;
		display: flex;
		flex-direction: column;
		overflow-y: auto;
	}
	.brand {
		display: flex;
		gap: 0.6rem;
		align-items: center;
		font-family: var(--slab);
		font-size: 1.5rem;
		font-weight: 600;
		text-decoration: none;
		margin-bottom: 1rem;
	}
	nav :global(.switcher) {
		text-align: left;
		background: none;
		border: 0;
		border-bottom: 1px solid var(--line);
		padding: 0 0 0.7rem;
		margin-right: 1.1rem;
		cursor: pointer;
		display: block;
		line-height: 1.3;
	}
	nav :global(.switcher span) {
		display: block;
		color: var(--quiet);
		font-size: 0.86rem;
	}
	:global(.rig-menu) {
		background: var(--raised);
		border: 1px solid var(--line);
		padding: 0.35rem 0;
		min-width: 15rem;
		z-index: 30;
		box-shadow: 0 6px 24px #0002;
	}
	:global(.rig-menu [role='menuitem']) {
		padding: 0.35rem 0.9rem;
		cursor: pointer;
		border-radius: 0;
	}
	:global(.rig-menu [data-highlighted]) {
		background: var(--heather-wash);
	}
	ol {
		list-style: none;
		margin: 0.9rem 0 0.6rem;
		padding: 0;
	}
	li {
		position: relative;
	}
	li:not(:last-child)::before {
		content: '';
		position: absolute;
		left: 7px;
		top: 1.7rem;
		bottom: -0.55rem;
		width: 2px;
		background: var(--ink);
	}
	li a {
		display: grid;
		grid-template-columns: 16px 1fr;
		column-gap: 0.75rem;
		align-items: center;
		text-decoration: none;
		padding: 0.32rem 0.5rem 0.32rem 0;
		position: relative;
		border-right: 3px solid transparent;
	}
	li a :global(svg) {
		position: relative;
		z-index: 1;
	}
	li a:hover .name {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	li a[aria-current] {
		border-right-color: var(--heather);
	}
	li a[aria-current] .name {
		font-weight: 700;
	}
	.note {
		grid-column: 2;
		color: var(--quiet);
		font-size: 0.8rem;
		line-height: 1.2;
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.due .note {
		color: var(--brick);
	}
	.foot {
		margin: auto 1.1rem 0 0;
		border-top: 1px solid var(--line);
		padding-top: 0.7rem;
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.25rem;
	}
	.foot a,
	.foot button {
		color: var(--quiet);
		text-decoration: none;
		text-align: left;
		background: none;
		border: 0;
		padding: 0.1rem 0;
		cursor: pointer;
		font-size: 0.92rem;
	}
	.foot a:hover,
	.foot button:hover,
	.foot a[aria-current] {
		color: var(--ink);
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	@media (max-width: 900px) {
		nav {
			height: auto;
			padding: 0.7rem 1rem;
		}
		.brand {
			margin-bottom: 0.4rem;
		}
		ol {
			display: flex;
			flex-wrap: wrap;
			gap: 0 1rem;
		}
		li::before {
			display: none;
		}
		.note {
			display: none;
		}
		.foot {
			display: flex;
			gap: 1.2rem;
			margin: 0;
		}
	}
</style>
