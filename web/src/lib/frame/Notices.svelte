<script lang="ts">
	import { untrack } from 'svelte';
	import { createToaster, Toast } from '@skeletonlabs/skeleton-svelte';
	import { notices } from '$lib/bench/notice.svelte';

	/** Short notices at the foot of the page. */
	const SHOWN_MS = 8000; // read by a slow reader too
	const toaster = createToaster({ placement: 'bottom' });
	$effect(() => {
		if (notices.waiting.length === 0) return;
		const titles = untrack(() => notices.waiting.splice(0));
		// The first may come before what shows it listens.
		setTimeout(() => {
			for (const title of titles) toaster.create({ title, duration: SHOWN_MS });
		});
	});
</script>

<Toast.Group {toaster}>
	{#snippet children(toast)}
		<Toast {toast} class="notice">
			<Toast.Title>{toast.title}</Toast.Title>
			<Toast.CloseTrigger class="link">Close</Toast.CloseTrigger>
		</Toast>
	{/snippet}
</Toast.Group>

<style>
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
	/* Where the rail folds the foot has two rows. */
	@media (max-width: 900px) {
		:global(.notice) {
			margin-bottom: 7rem;
		}
	}
	:global(.notice .link) {
		color: var(--paper);
	}
</style>
