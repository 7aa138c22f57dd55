<script lang="ts">
	import { onMount } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import RangePage from '$lib/range/RangePage.svelte';
	import type { Taken } from '$lib/range/setting';
	import { silence, taken } from '$lib/range/taken';

	let { data } = $props();
	let view = $derived<Taken | null>(data.view);

	/** Told anew by the server itself; what this browser kept is no answer. */
	async function refresh(): Promise<void> {
		const now = await taken(data.id);
		if (now.old) throw silence(now.status);
		view = now.view;
	}
	onMount(() => document.getElementById('main')?.focus());
</script>

<svelte:head
	><title>{view ? `${view.bench.rig.name} at the range` : 'At the range'} · Lyrandis</title
	></svelte:head
>
{#if view}
	{#key data.id}<RangePage
			{view}
			old={data.old}
			shelf={data.shelf}
			acts={data.acts}
			{refresh}
		/>{/key}
{:else}
	<main id="main" tabindex="-1" class="fault" role="alert">
		<h1>This rig is not here</h1>
		<p>{data.problem}</p>
		<p>
			<button class="act" onclick={() => invalidateAll()}>Try again</button>
			<a class="act plain" href="/range">Rigs at the range</a>
		</p>
	</main>
{/if}

<style>
	.fault {
		max-width: 34rem;
		margin: 20vh auto;
		padding: 0 1rem;
	}
</style>
