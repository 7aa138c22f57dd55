<script lang="ts">
	import '../app.css';
	import { afterNavigate, goto, invalidateAll, replaceState } from '$app/navigation';
	import { page } from '$app/state';
	import { tellOfUpdate } from '$lib/api/shape';
	import { notices } from '$lib/bench/notice.svelte';
	import { working } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { deeds } from '$lib/frame/window.svelte';
	import { listen } from '$lib/frame/keys';
	import { begin, scrollBack, scrolled } from '$lib/frame/place';

	let { children, data } = $props();
	/** Kept for each step of the browser's history. */
	export const snapshot = { capture, restore };
	interface Place {
		top: number;
		leaf: string | undefined;
	}
	function capture(): Place {
		return { top: scrolled(), leaf: page.state.leaf };
	}
	/** Loaded anew, a page opens at the leaf and the place where it was. */
	function restore({ top, leaf }: Place): void {
		if (leaf && page.state.leaf === undefined) replaceState('', { ...page.state, leaf });
		scrollBack(top);
	}
	/** Set once an answer came that these pages were not built for. */
	let updated = $state(false);
	tellOfUpdate(() => (updated = true));
	afterNavigate(({ from, to, type }) => {
		const led = type !== 'enter' && type !== 'popstate';
		if (led && from?.url?.pathname !== to?.url?.pathname) begin();
	});
	let lamp = $state(matchMedia('(prefers-color-scheme: dark)').matches);

	$effect(() => {
		const asked = matchMedia('(prefers-color-scheme: dark)');
		const follow = () => (lamp = asked.matches);
		asked.addEventListener('change', follow);
		return () => asked.removeEventListener('change', follow);
	});
	const onkey = listen(() => ({
		...deeds.page,
		terms: () => void goto('/terms'),
		home: () => void goto('/'),
		units: () => (deeds.units = true),
		help: () => (deeds.keys = true)
	}));
	$effect(() => {
		const dark = reference.theme === 'dark' || (reference.theme === 'system' && lamp);
		document.documentElement.dataset.mode = dark ? 'dark' : 'light';
	});
</script>

<svelte:window onkeydown={onkey} />
<p class="sr-only" role="status">{working.count ? 'At work …' : ''}</p>
{#if updated}
	<p class="updated" role="alert">
		Lyrandis was updated. What was logged at the range waits on; note what else is not kept yet.
		<button class="act plain" onclick={() => location.reload()}>Load this page anew</button>
	</p>
{/if}
<a class="skip" href="#main">To the main part</a>
{#if data.silent === null}
	{@render children()}
{:else}
	<main id="main" class="fault" role="alert">
		<h1>{data.silent.title}</h1>
		<p>{data.silent.said}</p>
		<button class="act" onclick={() => invalidateAll()}>Try again</button>
	</main>
{/if}

<!-- Dialogs come when they are asked for: a page then is lighter by a third of its script. -->
{#if deeds.units}{#await import('$lib/frame/Preferences.svelte') then { default: Preferences }}
		<Preferences bind:open={deeds.units} />
	{/await}{/if}
{#if deeds.keys}{#await import('$lib/frame/Keys.svelte') then { default: Keys }}
		<Keys bind:open={deeds.keys} />
	{/await}{/if}
{#if notices.asked}{#await import('$lib/frame/Notices.svelte') then { default: Notices }}
		<Notices />
	{/await}{/if}

<style>
	.skip {
		position: fixed;
		left: 0.6rem;
		top: -4rem;
		z-index: 60;
		background: var(--ink);
		color: var(--paper);
		padding: 0.6rem 1rem;
	}
	.updated {
		position: fixed;
		inset: auto 0 0;
		z-index: 70;
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem 1rem;
		align-items: center;
		justify-content: center;
		background: var(--raised);
		border-top: 2px solid var(--ochre);
		padding: 0.6rem 1rem;
	}
	.skip:focus {
		top: 0.6rem;
	}
	.fault {
		max-width: 34rem;
		margin: 20vh auto;
	}
</style>
