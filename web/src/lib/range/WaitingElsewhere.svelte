<script lang="ts">
	import { onMount } from 'svelte';
	import { forgetElsewhere, waitingElsewhere, type Elsewhere } from './origins';

	/** What waits at another address of this machine, and that it is to be handed over first. */
	let there = $state.raw<Elsewhere[]>([]);
	const look = () => (there = waitingElsewhere());
	onMount(() => {
		look();
		document.addEventListener('visibilitychange', look);
		return () => document.removeEventListener('visibilitychange', look);
	});
	function forget(origin: string): void {
		forgetElsewhere(origin);
		look();
	}
</script>

{#each there as { origin, count } (origin)}
	<p class="elsewhere" role="status">
		<strong>{count === 1 ? 'One act waits' : `${count} acts wait`} at another address</strong> of
		Lyrandis, and only its own pages can hand {count === 1 ? 'it' : 'them'} over: open
		<a class="link" href="{origin}/range">{origin}</a> first. If that address is gone, start
		Lyrandis as before once more.
		<button class="link" onclick={() => forget(origin)}>Say no more of it</button>
	</p>
{/each}

<style>
	.elsewhere {
		border-left: 4px solid var(--ochre);
		padding-left: 0.7rem;
		margin: 0.6rem 0;
		line-height: 1.3;
	}
</style>
