<script lang="ts">
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import Mark from '$lib/frame/Mark.svelte';
	import { forget, rigsHere, type Here } from '$lib/range/here';
	import { shelf } from '$lib/range/shelf';
	import WaitingElsewhere from '$lib/range/WaitingElsewhere.svelte';

	/** Where the home screen leads: the rigs that were taken to the range on this device. */
	let rigs = $state<(Here & { waiting: number })[]>([]);
	async function list(): Promise<void> {
		const kept = await shelf();
		const waiting = async (id: number) => (await kept.all(id)).made.length;
		rigs = await Promise.all(
			rigsHere().map(async (rig) => ({ ...rig, waiting: await waiting(rig.id) }))
		);
	}
	async function leave(id: number): Promise<void> {
		await forget(id);
		await list();
	}
	onMount(async () => {
		await list();
		// From the home screen straight to the only one there is.
		const [only, second] = rigs;
		if (only && !second && page.url.searchParams.has('home'))
			void goto(`/rig/${only.id}/range`, { replaceState: true });
	});
</script>

<svelte:head><title>At the range · Lyrandis</title></svelte:head>
<main id="main" tabindex="-1">
	<h1 class="brand"><Mark />At the range</h1>
	<WaitingElsewhere />
	<ul>
		{#each rigs as rig (rig.id)}
			<li>
				<a href="/rig/{rig.id}/range">{rig.name}</a>
				<span class="quiet"
					>{rig.waiting
						? `${rig.waiting} waiting to be handed over`
						: `last here ${rig.at.slice(0, 10)}`}</span
				>
				{#if !rig.waiting}
					<button class="link" onclick={() => leave(rig.id)}
						>Forget here<span class="sr-only">: {rig.name}</span></button
					>
				{/if}
			</li>
		{:else}
			<li class="empty">
				No rig was taken to the range on this device yet. Open a rig and choose “At the range”: its
				card and its log then work here without the server.
			</li>
		{/each}
	</ul>
	<p><a class="act plain" href="/">All rigs</a></p>
	<p class="quiet">
		What is kept here stays on this device until it is forgotten; what was logged is on the server.
	</p>
</main>

<style>
	main {
		max-width: 34rem;
		margin: 0 auto;
		padding: 1.4rem 1rem;
		outline: none;
	}
	h1 {
		font-size: 1.7rem;
		margin-bottom: 1rem;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0 0 1.4rem;
		border-top: 1px solid var(--ink);
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		align-items: center;
		border-bottom: 1px solid var(--line);
		padding: 0.3rem 0;
	}
	li a {
		grid-column: 1 / -1;
		font-family: var(--slab);
		font-size: 1.4rem;
		min-height: 48px;
		display: flex;
		align-items: center;
		text-decoration: none;
	}
	p {
		margin: 0.8rem 0;
	}
	.empty {
		display: block;
		padding: 0.8rem 0;
	}
</style>
