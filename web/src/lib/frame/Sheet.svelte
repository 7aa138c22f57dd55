<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	/** A dialog: a sheet of paper over the bench. */
	let {
		open = $bindable(false),
		title,
		children
	}: { open: boolean; title: string; children: Snippet } = $props();
</script>

<Dialog {open} onOpenChange={(e) => (open = e.open)}>
	<Portal>
		<Dialog.Backdrop class="dialog-back" />
		<Dialog.Positioner class="dialog-place">
			<Dialog.Content class="dialog-sheet">
				<header>
					<Dialog.Title class="sheet-title">{title}</Dialog.Title>
					<Dialog.CloseTrigger class="link">Close</Dialog.CloseTrigger>
				</header>
				{@render children()}
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>

<style>
	header {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 2rem;
		margin-bottom: 0.8rem;
	}
	:global(.dialog-sheet .buttons) {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
		margin-top: 1.2rem;
	}
	header :global(.sheet-title) {
		font-family: var(--slab);
		font-size: 1.4rem;
	}
</style>
