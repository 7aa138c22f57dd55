<script lang="ts">
	import { page } from '$app/state';
	import { useBench } from '$lib/bench/bench.svelte';
	import { tellOfSheet } from '$lib/bench/notice.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import { deeds, screen } from './window.svelte';
	import Mark from './Mark.svelte';
	import StateMark from './StateMark.svelte';

	const bench = useBench();
	const rig = $derived(bench().bench.rig);
	const base = $derived(`/rig/${bench().id}`);
	const here = $derived(page.url.pathname.split('/').pop());
	const words = { open: 'open', provisional: 'provisional', settled: 'settled', due: 'recheck' };
	const stations = $derived(bench().route);
	const at = $derived(stations.findIndex((s) => s.id === here));
	/** On a strip: the present stop between its neighbours, and the whole route at a touch. */
	let unfolded = $state(false);
	const due = $derived(bench().states.filter((s) => s.state === 'due'));
	$effect(() => {
		if (here) unfolded = false;
	});
	/** Why a part of the rig must not be shot. */
	const halt = $derived(bench().bench.stop);
	/** Whether the list of rigs was asked for: it is a heavy thing for one line of text. */
	let asked = $state(false);
</script>

{#snippet rigLine()}
	<strong>{rig.name}</strong>
	<span>{rig.archer.hand} hand · {reference.word('archer.release', rig.archer.release)} ▾</span>
{/snippet}

{#snippet stop(id: string, title: string)}
	<StateMark state={bench().state(id)?.state ?? 'open'} />
	<span class="name">{title}</span>
{/snippet}

<nav aria-label="Rig and route">
	<div class="head">
		<a class="brand" href="/"><Mark /><span class:sr-only={screen.folded}>Lyrandis</span></a>
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
		{#if screen.folded}
			<button
				class="act plain unfold"
				aria-expanded={unfolded}
				aria-controls="route"
				onclick={() => (unfolded = !unfolded)}>Route</button
			>
		{/if}
	</div>

	{#if halt}
		<p class="stopped" role="status"><strong>Stop.</strong> <SaidText said={halt} /></p>
	{/if}

	{#if screen.folded && !unfolded}
		<div class="strip">
			{#each [at - 1, at, at + 1] as i (i - at)}
				{@const station = at < 0 ? undefined : stations[i]}
				{#if station}
					<a
						href="{base}/{station.id}"
						class:present={i === at}
						aria-current={i === at ? 'page' : undefined}
						><span class="sr-only">{i < at ? 'before: ' : i > at ? 'next: ' : ''}</span
						>{@render stop(station.id, station.title)}</a
					>
				{/if}
			{/each}
			{#each due
				.filter((d) => !stations.slice(Math.max(at - 1, 0), at + 2).some((s) => s.id === d.station))
				.slice(0, 1) as other (other.station)}
				<a class="due" href="{base}/{other.station}"
					>{@render stop(
						other.station,
						`recheck ${stations.find((s) => s.id === other.station)?.title}`
					)}</a
				>
			{/each}
		</div>
	{:else}
		<div id="route">
			<ol>
				{#each stations as station (station.id)}
					{@const state = bench().state(station.id)}
					{@const view = bench().bench.notes.find((s) => s.station === station.id)}
					{@const reasons = (state?.reasons ?? []).map((r) => reference.said(r)).join(' ')}
					<li class={state?.state}>
						<a
							href="{base}/{station.id}"
							aria-current={here === station.id ? 'page' : undefined}
							onclick={() => (unfolded = false)}
						>
							{@render stop(station.id, station.title)}
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
				<a href="{base}/range">At the range</a>
				<a href="{base}/keep" aria-current={here === 'keep' ? 'page' : undefined}>Logbook</a>
				<a href="{base}/schedule" aria-current={here === 'schedule' ? 'page' : undefined}
					>Schedule</a
				>
				<a href="{base}/beside" aria-current={here === 'beside' ? 'page' : undefined}
					>Side by side</a
				>
				<a
					href="/api/rigs/{bench().id}/sheet"
					target="_blank"
					rel="noopener"
					onclick={() => tellOfSheet(bench().dirty)}>Print sheet</a
				>
				<a href="/terms?rig={bench().id}">Terms</a>
				<button onclick={() => (deeds.units = true)}>Units</button>
				<button onclick={() => (deeds.keys = true)}>Keys</button>
			</div>
		</div>
	{/if}
</nav>

<style>
	.stopped {
		color: var(--brick);
		border-left: 3px solid var(--brick);
		padding-left: 0.6rem;
		margin: 0.3rem 0 0.6rem;
		font-size: 0.88rem;
		line-height: 1.25;
	}
	nav {
		padding: 1.1rem 0 0.8rem 1.35rem;
		height: 100%;
		display: flex;
		flex-direction: column;
		overflow-y: auto;
	}
	.brand {
		margin-bottom: 1rem;
	}
	#route {
		display: flex;
		flex-direction: column;
		flex: 1;
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
		min-height: 24px;
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
	/* A laptop's height still holds the whole route: notes beside the names, but for what is due. */
	@media (min-width: 901px) and (max-height: 1000px) {
		ol {
			margin: 0.5rem 0 0.4rem;
		}
		li a {
			padding: 0.14rem 0.5rem 0.14rem 0;
		}
		li:not(.due) a {
			grid-template-columns: 16px auto minmax(0, 1fr);
			column-gap: 0.5rem;
			min-height: 27px;
		}
		li:not(.due) .name {
			white-space: nowrap;
			margin-left: 0.25rem;
		}
		li:not(.due) .note {
			grid-column: 3;
			text-align: right;
		}
		li:not(:last-child)::before {
			top: 1.35rem;
			bottom: -0.35rem;
		}
		.foot {
			padding-top: 0.35rem;
			gap: 0;
		}
	}
	@media (max-width: 900px) {
		nav {
			height: auto;
			max-height: 70dvh;
			padding: 0.3rem 1rem 0;
		}
		.head {
			display: flex;
			gap: 0.9rem;
			align-items: center;
		}
		.brand {
			margin: 0;
		}
		nav :global(.switcher) {
			flex: 1;
			min-width: 0;
			margin: 0;
			padding: 0.2rem 0;
			border: 0;
		}
		nav :global(.switcher strong) {
			display: block;
			white-space: nowrap;
			overflow: hidden;
			text-overflow: ellipsis;
		}
		.strip {
			display: flex;
			gap: 0 1.4rem;
			overflow-x: auto;
		}
		.strip a {
			display: flex;
			gap: 0.45rem;
			align-items: center;
			min-height: 44px;
			text-decoration: none;
			color: var(--quiet);
			white-space: nowrap;
			border-bottom: 3px solid transparent;
		}
		.strip .present {
			color: var(--ink);
			font-weight: 700;
			border-bottom-color: var(--heather);
		}
		.strip .due {
			margin-left: auto;
			color: var(--brick);
		}
		ol {
			display: grid;
			grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
			gap: 0 1rem;
			margin: 0.3rem 0;
		}
		li::before {
			display: none;
		}
		li a {
			border: 0;
			min-height: 44px;
		}
		.foot a,
		.foot button {
			min-height: 44px;
			display: flex;
			align-items: center;
		}
		.foot {
			margin: 0;
			grid-template-columns: repeat(3, 1fr);
			padding-bottom: 0.3rem;
		}
	}
</style>
