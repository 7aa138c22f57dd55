<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import FieldName from './FieldName.svelte';
	import Help from './Help.svelte';

	/** A choice among more than a row can hold, or one that is rarely changed. */
	let { path, label }: { path: string; label?: string } = $props();

	const bench = useBench();
	const id = $props.id();
	let helping = $state(false);
	const note = $derived(reference.catalog?.fields[path]);
	const value = $derived(String(bench().value(path)));
	const options = $derived([
		...(note?.optional ? [['null', 'not known'] as [string, string]] : []),
		...Object.entries(note?.words ?? {})
	]);

	function key(event: KeyboardEvent): void {
		if (event.key !== '?' && !(event.key === 'Escape' && helping)) return;
		event.preventDefault();
		helping = event.key === '?' && !helping;
	}

	/** “null” stands for a setting that is not set. */
	function choose(chosen: string): void {
		bench().set(path, chosen === 'null' ? null : chosen);
	}
</script>

<div class="pick" class:changed={bench().isChanged(path)}>
	<FieldName title={label ?? note?.title ?? path} of={id} helpId="{id}-help" bind:open={helping} />
	<select {id} {value} onkeydown={key} onchange={(e) => choose(e.currentTarget.value)}>
		{#each options as [key, title] (key)}<option value={key}>{title}</option>{/each}
	</select>
	<Help
		{path}
		title={label ?? note?.title ?? path}
		help={note?.help ?? ''}
		bind:open={helping}
		id="{id}-help"
	/>
</div>

<style>
	select {
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--line);
		color: var(--ink);
		padding: 0.25rem 1.4rem 0.25rem 0;
		width: 100%;
		font-weight: 600;
		border-radius: 0;
	}
	.changed select {
		color: var(--heather);
		border-bottom-color: var(--heather);
	}
	option {
		background: var(--raised);
		color: var(--ink);
	}
</style>
