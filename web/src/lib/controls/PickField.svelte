<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import FieldName, { helpAfter } from './FieldName.svelte';
	import Help from './Help.svelte';

	/** A choice among more than a row can hold, or one that is rarely changed. */
	interface Props {
		note: Schemas['FieldNote'] | undefined;
		/** The setting's path, for its term. */
		path: string;
		label?: string;
		value: unknown;
		changed?: boolean;
		onvalue: (value: string | null) => void;
	}
	let { note, path, label, value, changed = false, onvalue }: Props = $props();
	const id = $props.id();
	let helping = $state(false);
	const title = $derived(label ?? note?.title ?? path);
	const options = $derived([
		...(note?.optional ? [['null', 'not known'] as [string, string]] : []),
		...Object.entries(note?.words ?? {})
	]);
</script>

<div class="pick" class:changed>
	<FieldName {title} of={id} helpId="{id}-help" bind:open={helping} />
	<!-- “null” stands for a setting that is not set. -->
	<select
		class="choose"
		{id}
		value={String(value ?? 'null')}
		onkeydown={(e) => (helping = helpAfter(e, helping))}
		onchange={(e) => onvalue(e.currentTarget.value === 'null' ? null : e.currentTarget.value)}
	>
		{#each options as [key, word] (key)}<option value={key}>{word}</option>{/each}
	</select>
	<Help {path} {title} help={note?.help ?? ''} bind:open={helping} id="{id}-help" />
</div>

<style>
	select {
		width: 100%;
	}
	.changed select {
		color: var(--heather);
		border-bottom-color: var(--heather);
	}
</style>
