<script lang="ts">
	import '../app.css';
	import { invalidateAll } from '$app/navigation';
	import { Toast } from '@skeletonlabs/skeleton-svelte';
	import { toaster } from '$lib/bench/notice.svelte';
	import { reference } from '$lib/bench/reference.svelte';

	let { children, data } = $props();
	let lamp = $state(matchMedia('(prefers-color-scheme: dark)').matches);

	$effect(() => {
		const asked = matchMedia('(prefers-color-scheme: dark)');
		const follow = () => (lamp = asked.matches);
		asked.addEventListener('change', follow);
		return () => asked.removeEventListener('change', follow);
	});
	$effect(() => {
		const dark = reference.theme === 'dark' || (reference.theme === 'system' && lamp);
		document.documentElement.dataset.mode = dark ? 'dark' : 'light';
	});
</script>

{#if data.silent === null}
	{@render children()}
{:else}
	<main class="fault" role="alert">
		<h1>Lyrandis does not answer</h1>
		<p>{data.silent}</p>
		<button class="act" onclick={() => invalidateAll()}>Try again</button>
	</main>
{/if}

<Toast.Group {toaster}>
	{#snippet children(toast)}
		<Toast {toast} class="notice">
			<Toast.Title>{toast.title}</Toast.Title>
			<Toast.CloseTrigger class="link">Close</Toast.CloseTrigger>
		</Toast>
	{/snippet}
</Toast.Group>

<style>
	.fault {
		max-width: 34rem;
		margin: 20vh auto;
	}
	:global(.notice) {
		background: var(--ink);
		color: var(--paper);
		padding: 0.6rem 1rem;
		display: flex;
		gap: 1.4rem;
		align-items: baseline;
		border-radius: 2px;
		margin-bottom: 3.6rem;
		width: auto;
	}
	:global(.notice .link) {
		color: var(--paper);
	}
</style>
