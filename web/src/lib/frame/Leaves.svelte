<script lang="ts">
	import { Tabs } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	/** What lies under a plate, leaf by leaf: one is open at a time. */
	let { leaves }: { leaves: { id: string; title: string; body: Snippet }[] } = $props();
	let open = $state<string | null>(null);
	const value = $derived(open ?? leaves[0]?.id ?? '');
</script>

<Tabs {value} onValueChange={(e) => (open = e.value)} class="leaves">
	<Tabs.List class="leaf-row">
		{#each leaves as leaf (leaf.id)}
			<Tabs.Trigger value={leaf.id} class="leaf">{leaf.title}</Tabs.Trigger>
		{/each}
	</Tabs.List>
	{#each leaves as leaf (leaf.id)}
		<Tabs.Content value={leaf.id}>
			{#if value === leaf.id}{@render leaf.body()}{/if}
		</Tabs.Content>
	{/each}
</Tabs>

<style>
	:global(.leaf-row) {
		display: flex;
		flex-wrap: wrap;
		gap: 0 1.6rem;
		border: 0;
		border-bottom: 1px solid var(--line);
		padding: 0;
		margin-bottom: 0.8rem;
	}
	:global(.leaf) {
		font-family: var(--slab);
		font-size: 1.08rem;
		color: var(--quiet);
		background: none;
		border: 0;
		border-bottom: 3px solid transparent;
		border-radius: 0;
		padding: 0.1rem 0 0.25rem;
		cursor: pointer;
		flex: none;
	}
	:global(.leaf[data-selected]) {
		color: var(--ink);
		font-weight: 600;
		border-bottom-color: var(--heather);
	}
	:global(.leaves) {
		display: block;
	}
</style>
