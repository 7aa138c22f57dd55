<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { MediaQuery } from 'svelte/reactivity';
	import { Tabs } from '@skeletonlabs/skeleton-svelte';
	import Drafts from '$lib/drafts/Drafts.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import { deeds } from '$lib/frame/window.svelte';
	import { makeReady, opened, type Readiness } from './here';
	import { Outbox } from './outbox.svelte';
	import RangeBrace from './RangeBrace.svelte';
	import RangeCard from './RangeCard.svelte';
	import RangeEnd from './RangeEnd.svelte';
	import RangeLog from './RangeLog.svelte';
	import RangeRead from './RangeRead.svelte';
	import type { Taken } from './setting';
	import type { Acts, Shelf } from './shelf';
	import { Unlogged } from './unlogged.svelte';

	/** One rig at the range: the card, an end, the brace, a read, and what was logged. */
	interface Props {
		view: Taken;
		/** Whether it is as of before, from this browser's keeping. */
		old: boolean;
		shelf: Shelf;
		/** What waits on it as the page is opened. */
		acts: Acts;
		refresh: () => Promise<void>;
	}
	let { view, old, shelf, acts, refresh }: Props = $props();
	/** What a browser tells that may put a page on the home screen. */
	interface Offer extends Event {
		prompt(): Promise<unknown>;
	}
	const wide = new MediaQuery('min-width: 760px');
	const outbox = untrack(
		() =>
			new Outbox(
				() => view,
				() => refresh(),
				shelf,
				acts
			)
	);
	const unlogged = new Unlogged(
		untrack(() => view.id),
		initial()
	);
	$effect(() => unlogged.keep());
	useDraft(
		'at the range',
		() => unlogged.typed,
		(was) => unlogged.take(was),
		untrack(() => view.uid)
	);
	unlogged.takeOld();
	const LEAVES = [
		{ id: 'card', title: 'Card', key: 'c' },
		{ id: 'end', title: 'End', key: 'e' },
		{ id: 'brace', title: 'Brace', key: 'b' },
		{ id: 'read', title: 'Read', key: 'r' },
		{ id: 'log', title: 'Log', key: 'l' }
	] as const;
	type Leaf = (typeof LEAVES)[number]['id'];
	let asked = $state<Leaf>('card');
	const leaf = $derived<Leaf>(wide.current && asked === 'card' ? 'end' : asked);
	const leaves = $derived(LEAVES.filter((one) => one.id !== 'card' || !wide.current));
	let readiness = $state<Readiness>('asking');
	let offer = $state<Offer | null>(null);
	let worked = $state<{ key: (event: KeyboardEvent) => boolean }>();
	const waiting = $derived(outbox.waiting.length);
	const asOf = $derived(
		new Date(view.told_at).toLocaleString('en-GB', {
			day: 'numeric',
			month: 'short',
			hour: '2-digit',
			minute: '2-digit'
		})
	);

	function initial(): number {
		const own = view.lines.filter((line) => line.own);
		return (own[Math.floor(own.length / 3)] ?? own[0])?.distance_m ?? 20;
	}
	const go = (id: Leaf) => (asked = id);
	function walk(step: 1 | -1): void {
		const at = leaves.findIndex((one) => one.id === leaf);
		const next = leaves[at + step];
		if (next) go(next.id);
	}
	function key(event: KeyboardEvent): void {
		if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return;
		const target = event.target as HTMLElement;
		if (target.closest('input, select, textarea, [role=dialog]')) return;
		// A button that has the focus is pressed by Enter.
		if (event.key === 'Enter' && target.closest('button, a')) return;
		const other = LEAVES.find((one) => one.key === event.key);
		if (other) go(other.id);
		else if (!worked?.key(event)) return;
		event.preventDefault();
	}
	onMount(() => {
		opened(view.id, view.bench.rig.name);
		deeds.page = { walk, trial: () => go('end'), undo: () => outbox.undo() };
		void makeReady(view.id).then((found) => (readiness = found));
		if (old) outbox.reach = false;
		void outbox.hand();
		const offered = (event: Event) => {
			event.preventDefault();
			offer = event as Offer;
		};
		const again = () =>
			document.visibilityState === 'visible' && void outbox.look().then(() => outbox.hand());
		const look = () => void outbox.look();
		window.addEventListener('beforeinstallprompt', offered);
		window.addEventListener('online', again);
		window.addEventListener('storage', look);
		document.addEventListener('visibilitychange', again);
		return () => {
			deeds.page = null;
			outbox.stop();
			window.removeEventListener('beforeinstallprompt', offered);
			window.removeEventListener('online', again);
			window.removeEventListener('storage', look);
			document.removeEventListener('visibilitychange', again);
		};
	});
	async function install(): Promise<void> {
		await offer?.prompt();
		offer = null;
	}
</script>

<svelte:window onkeydown={key} />
<div class="range" class:wide={wide.current}>
	<header>
		<h1><a href="/rig/{view.id}/crawls" title="The whole rig">{view.bench.rig.name}</a></h1>
		<button class="reach" class:out={!outbox.reach || waiting > 0} onclick={() => go('log')}>
			<span aria-live="polite"
				>{#if outbox.meanwhile}kept meanwhile: look{:else}{outbox.reach
						? ''
						: 'out of reach'}{#if waiting}{outbox.reach ? '' : ', '}<strong
							>{waiting} waiting</strong
						>{:else if outbox.reach}in reach{/if}{/if}</span
			>
		</button>
		{#if readiness !== 'ready' && readiness !== 'asking'}
			<button class="opens" onclick={() => go('log')}
				>Does not open out of reach{readiness === 'late' ? ' yet' : ''}: why</button
			>
		{/if}
		{#if !outbox.safe}
			<p class="stop" role="alert">
				This browser keeps nothing more (its storage is full or shut): leave the page open until all
				is handed over.
			</p>
		{/if}
		{#each view.stops as stop, i (i)}
			<p class="stop" role="alert"><strong>Stop.</strong> <SaidText said={stop} /></p>
		{/each}
	</header>
	{#if wide.current}
		<section class="card" aria-label="The card">
			<RangeCard
				{view}
				distance={unlogged.distance}
				onpick={unlogged.pick}
				asOf={outbox.reach ? null : asOf}
			/>
		</section>
	{/if}
	<Tabs value={leaf} onValueChange={(e) => go(e.value as Leaf)} class="range-leaves">
		<main id="main" tabindex="-1">
			<div class="page">
				<Drafts />
				{#each leaves as one (one.id)}
					<Tabs.Content value={one.id} tabindex={-1}>
						{#if leaf !== one.id}{:else if leaf === 'card'}
							<RangeCard
								{view}
								distance={unlogged.distance}
								onpick={unlogged.pick}
								asOf={outbox.reach ? null : asOf}
							/>
						{:else if leaf === 'end'}
							<RangeEnd bind:this={worked} {view} {outbox} {unlogged} />
						{:else if leaf === 'brace'}
							<RangeBrace bind:this={worked} {view} {outbox} {unlogged} />
						{:else if leaf === 'read'}
							<RangeRead bind:this={worked} {view} {outbox} {unlogged} />
						{:else}
							<RangeLog
								id={view.id}
								{outbox}
								{readiness}
								oninstall={offer ? () => void install() : null}
							/>
						{/if}
					</Tabs.Content>
				{/each}
			</div>
			<Tabs.List class="range-row">
				{#each leaves as one (one.id)}
					<Tabs.Trigger value={one.id} class="range-tab"
						>{one.title}{#if one.id === 'log' && waiting}
							<span class="count">{waiting}</span>{/if}</Tabs.Trigger
					>
				{/each}
			</Tabs.List>
		</main>
	</Tabs>
</div>

<style>
	/* For the sun: the same ink and paper with more between them. */
	:global([data-mode='light']) .range {
		--paper: #fffdf7;
		--raised: #ffffff;
		--ink: #0d1713;
		--quiet: #3a4742;
		--line: #8d897c;
		--heather: #553461;
	}
	.range {
		position: fixed;
		inset: 0;
		display: grid;
		grid-template-rows: auto minmax(0, 1fr);
		background: var(--paper);
		color: var(--ink);
		font-size: 1.06rem;
	}
	.range.wide {
		grid-template-columns: minmax(18rem, 24rem) minmax(0, 1fr);
	}
	header {
		grid-column: 1 / -1;
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 0 0.8rem;
		align-items: center;
		padding: 0.3rem 1rem;
		border-bottom: 1px solid var(--ink);
	}
	h1 {
		font-size: 1.25rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	h1 a {
		text-decoration: none;
		display: inline-block;
		padding: 0.75rem 0;
	}
	.reach {
		background: none;
		border: 0;
		color: var(--moss);
		font-weight: 600;
		text-align: right;
		line-height: 1.15;
		cursor: pointer;
		max-width: 12rem;
	}
	.reach.out {
		color: var(--ochre);
	}
	.opens {
		grid-column: 1 / -1;
		background: none;
		border: 0;
		padding: 0.2rem 0;
		color: var(--ochre);
		text-align: left;
		text-decoration: underline;
		cursor: pointer;
	}
	.stop {
		grid-column: 1 / -1;
		color: var(--brick);
		border-left: 4px solid var(--brick);
		padding-left: 0.6rem;
		margin: 0.2rem 0;
	}
	.card {
		overflow-y: auto;
		padding: 0.8rem 1rem;
		border-right: 1px solid var(--line);
	}
	.range :global(.range-leaves) {
		display: contents;
	}
	main {
		display: grid;
		grid-template-rows: minmax(0, 1fr) auto;
		min-height: 0;
		min-width: 0;
		outline: none;
	}
	.page {
		overflow-y: auto;
		padding: 0.6rem max(1rem, (100% - 34rem) / 2);
	}
	.range :global(.range-row) {
		display: grid;
		grid-auto-flow: column;
		grid-auto-columns: 1fr;
		border-top: 1px solid var(--ink);
		background: var(--raised);
		padding: 0;
		margin: 0;
		gap: 0;
	}
	.range :global(.range-tab) {
		min-height: 60px;
		font-family: var(--slab);
		font-size: 1.15rem;
		background: none;
		border: 0;
		border-top: 4px solid transparent;
		border-radius: 0;
		color: var(--quiet);
		cursor: pointer;
	}
	.range :global(.range-tab[data-selected]) {
		color: var(--ink);
		font-weight: 600;
		border-top-color: var(--heather);
	}
	.count {
		font-family: var(--mono);
		color: var(--ochre);
		font-weight: 700;
	}
	.range :global(.act.plain) {
		border-color: var(--line);
	}
	.range :global(.act[aria-pressed='true']) {
		border: 2px solid var(--heather);
		color: var(--heather);
	}
</style>
