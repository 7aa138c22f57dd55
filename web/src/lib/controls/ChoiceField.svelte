<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import FieldName, { helpAfter } from './FieldName.svelte';
	import Help from './Help.svelte';

	interface Props {
		path: string;
		label?: string;
		/** Other settings that go with a choice. */
		also?: (value: string) => Record<string, unknown>;
	}
	let { path, label, also }: Props = $props();

	const bench = useBench();
	const id = $props.id();
	let helping = $state(false);
	const note = $derived(reference.catalog?.fields[path]);
	const value = $derived(String(bench().value(path)));
	const options = $derived(Object.entries(note?.words ?? {}));

	function choose(chosen: string | null): void {
		if (chosen === null) return;
		const real = chosen === 'true' ? true : chosen === 'false' ? false : chosen;
		bench().setAll({ [path]: real, ...(also?.(chosen) ?? {}) });
	}
</script>

<div
	class="choice"
	class:changed={bench().isChanged(path)}
	role="presentation"
	onkeydown={(e) => (helping = helpAfter(e, helping))}
>
	<FieldName title={label ?? note?.title ?? path} helpId="{id}-help" bind:open={helping} />
	<SegmentedControl {value} onValueChange={(e) => choose(e.value)}>
		<SegmentedControl.Label class="sr-only">{label ?? note?.title}</SegmentedControl.Label>
		<SegmentedControl.Control class="choice-row">
			{#each options as [id, title] (id)}
				<SegmentedControl.Item value={id} class="choice-item">
					<SegmentedControl.ItemText>{title}</SegmentedControl.ItemText>
					<SegmentedControl.ItemHiddenInput />
				</SegmentedControl.Item>
			{/each}
		</SegmentedControl.Control>
	</SegmentedControl>
	<Help
		{path}
		title={label ?? note?.title ?? path}
		help={note?.help ?? ''}
		bind:open={helping}
		id="{id}-help"
	/>
</div>

<style>
	.choice :global(.choice-row) {
		display: flex;
		flex-direction: row;
		flex-wrap: wrap;
		gap: 0 1rem;
		background: none;
		border: 0;
		padding: 0;
		width: auto;
	}
	.choice :global(.choice-item) {
		cursor: pointer;
		flex: none;
		color: var(--quiet) !important;
		border-bottom: 2px solid transparent;
		min-width: var(--target);
		min-height: var(--target);
		padding: 0.1rem 0 0.15rem;
		white-space: nowrap;
		background: none;
		border-radius: 0;
	}
	.choice :global(.choice-item:hover) {
		color: var(--ink) !important;
	}
	.choice :global(.choice-item[data-state='checked']) {
		color: var(--ink) !important;
		font-weight: 600;
		border-bottom-color: var(--ink);
	}
	.changed :global(.choice-item[data-state='checked']) {
		color: var(--heather) !important;
		border-bottom-color: var(--heather);
	}
	.choice :global(.choice-item *) {
		color: inherit !important;
	}
	.choice :global(.choice-item:has(:focus-visible)),
	.choice :global(.choice-item[data-focus-visible]) {
		outline: 2px solid var(--heather);
		outline-offset: 2px;
	}
</style>
