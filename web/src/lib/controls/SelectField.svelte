<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';

	/** A choice among more than a row can hold, or one that is rarely changed. */
	let { path, label }: { path: string; label?: string } = $props();

	const bench = useBench();
	const id = $props.id();
	const note = $derived(reference.catalog?.fields[path]);
	const value = $derived(String(bench().value(path)));
	const options = $derived([
		...(note?.optional ? [['null', 'not known'] as [string, string]] : []),
		...Object.entries(note?.words ?? {})
	]);

	/** “null” stands for a setting that is not set. */
	function choose(chosen: string): void {
		bench().set(path, chosen === 'null' ? null : chosen);
	}
</script>

<div class="pick" class:changed={bench().isChanged(path)}>
	<label for={id} title={note?.help}>{label ?? note?.title}</label>
	<select {id} {value} onchange={(e) => choose(e.currentTarget.value)}>
		{#each options as [key, title] (key)}<option value={key}>{title}</option>{/each}
	</select>
</div>

<style>
	label {
		display: block;
		color: var(--quiet);
		font-size: 0.82rem;
	}
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
