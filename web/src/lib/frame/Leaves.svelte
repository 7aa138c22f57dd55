<script lang="ts" generics="Leaf extends { id: string; title: string; trial?: boolean }">
	import { Tabs } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';
	import { replaceState } from '$app/navigation';
	import { page } from '$app/state';
	import Drafts from '$lib/drafts/Drafts.svelte';

	/** The sides of a station's work, leaf by leaf: one is open at a time; a lone one has no tab. */
	let { leaves, leaf }: { leaves: Leaf[]; leaf: Snippet<[Leaf]> } = $props();
	/** Which is open, kept for this step of the browser's history: going back, it is open again. */
	const open = $derived(page.state.leaf);
	const turn = (leaf: string): void => replaceState('', { ...page.state, leaf });
	const value = $derived(leaves.find((l) => l.id === open)?.id ?? leaves[0]?.id ?? '');
	const shown = $derived(leaves.find((l) => l.id === value));
</script>

{#if leaves.length === 1 && shown}
	<Drafts />
	{@render leaf(shown)}
{:else}
	<Tabs {value} onValueChange={(e) => turn(e.value)} class="leaves">
		<Tabs.List class="leaf-row">
			{#each leaves as one (one.id)}
				<Tabs.Trigger value={one.id} class="leaf" data-trial-leaf={one.trial ? '' : undefined}
					>{one.title}</Tabs.Trigger
				>
			{/each}
		</Tabs.List>
		{#each leaves as one (one.id)}
			<Tabs.Content value={one.id} tabindex={-1}>
				{#if value === one.id}<Drafts />{@render leaf(one)}{/if}
			</Tabs.Content>
		{/each}
	</Tabs>
{/if}

<style>
	:global(.leaf-row) {
		display: flex;
		flex-wrap: nowrap;
		gap: 0 1.6rem;
		border: 0;
		border-bottom: 1px solid var(--line);
		padding: 0;
		margin-bottom: 0.6rem;
		overflow-x: auto;
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
		white-space: nowrap;
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
