<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureInput from '$lib/controls/MeasureInput.svelte';
	import FieldName from '$lib/controls/FieldName.svelte';

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
	let helping = $state<string | null>(null);
	const id = $props.id();
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
			<div class="pick" class:changed={changed.includes(name)}>
				<FieldName
					title={note.title}
					of="{id}-{name}"
					helpId="{id}-{name}-help"
					bind:open={() => helping === name, (o) => (helping = o ? name : null)}
				/>
				<select
					id="{id}-{name}"
					value={String(body[name] ?? 'null')}
					onchange={(e) =>
						onset(name, e.currentTarget.value === 'null' ? null : e.currentTarget.value)}
				>
					{#if note.optional}<option value="null">not known</option>{/if}
					{#each Object.entries(note.words ?? {}) as [key, word] (key)}<option value={key}
							>{word}</option
						>{/each}
				</select>
				{#if helping === name}<p class="quiet" id="{id}-{name}-help">
						{note.help || 'One of these.'}
					</p>{/if}
			</div>
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
	p {
		font-size: 0.82rem;
	}
</style>
