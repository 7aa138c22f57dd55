<script lang="ts">
	import type { Outgoing } from '$lib/bench/outgoing.svelte';
	import { refocus } from './focus';

	/** How far a file has gone, and a way to stop it. */
	let { outgoing, reading }: { outgoing: Outgoing; reading: string } = $props();
	const share = $derived(outgoing.share ?? 1);
	let stop = $state<HTMLButtonElement>();
	const read = $derived(outgoing.read);
	const percent = $derived(Math.round((share < 1 ? share : (read ?? 0)) * 100));
	$effect(() => refocus(stop));
</script>

<p class="sending" role="status">
	<progress
		max="1"
		value={share < 1 ? share : (read ?? undefined)}
		aria-label={share < 1 ? 'How far the file has gone' : 'How far it is read'}
	></progress>
	<span
		>{share < 1 ? `${percent} % sent` : reading}{share >= 1 && read !== null
			? `, ${percent} %`
			: ''}</span
	>
	<button bind:this={stop} type="button" class="link" onclick={() => outgoing.stop()}>Stop</button>
</p>

<style>
	.sending {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem 1rem;
		align-items: center;
		margin: 0.6rem 0;
	}
	progress {
		accent-color: var(--heather);
		width: 12rem;
		max-width: 100%;
	}
</style>
