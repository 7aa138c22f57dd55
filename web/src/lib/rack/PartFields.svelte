<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureInput from '$lib/controls/MeasureInput.svelte';
	import PickField from '$lib/controls/PickField.svelte';

	/** What a part is, field by field: each with its unit, its range and its words. */
	interface Props {
		kind: string;
		/** Field, without the `of.` before it, to value. */
		body: Record<string, unknown>;
		/** Fields that differ from what is kept. */
		changed?: string[];
		reset?: unknown;
		onset: (field: string, value: unknown) => void;
		onunread?: (field: string, reason: string | null) => void;
	}
	let { kind, body, changed = [], reset, onset, onunread }: Props = $props();
	const fields = $derived(
		Object.entries(reference.catalog?.parts[kind]?.fields ?? {})
			.filter(([path]) => path.startsWith('of.') && path !== 'of.shafts')
			.map(([path, note]) => ({ name: path.slice(3), note }))
	);
</script>

<div class="fields">
	{#each fields as { name, note } (name)}
		{#if note.quantity}
			<MeasureInput
				{note}
				value={(body[name] as number | null) ?? null}
				slider={false}
				{reset}
				kept={changed.includes(name) ? 'changed' : null}
				onvalue={(value) =>
					onset(name, value !== null && note.quantity === 'count' ? Math.round(value) : value)}
				onunread={(reason) => onunread?.(name, reason)}
			/>
		{:else if Object.keys(note.words ?? {}).length}
			<PickField
				{note}
				path={note.path}
				value={body[name]}
				changed={changed.includes(name)}
				onvalue={(value) => onset(name, value)}
			/>
		{/if}
	{/each}
</div>

<style>
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
		gap: 0.7rem 1.6rem;
		align-items: start;
	}
	@media (max-width: 560px) {
		.fields {
			grid-template-columns: repeat(2, 1fr);
			gap: 0.5rem 1.2rem;
		}
	}
</style>
