<script lang="ts">
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureInput from '$lib/controls/MeasureInput.svelte';
	import PickField from '$lib/controls/PickField.svelte';
	import Drafts from '$lib/drafts/Drafts.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';

	/** Somebody who comes for a bow: a name and how they draw, the rest later. */
	let { onmade }: { onmade: (line: Schemas['PartLine']) => void } = $props();
	const attempt = new Attempt();
	const fields = $derived(reference.catalog?.parts.archer?.fields ?? {});
	const ASKED = ['release', 'hand', 'grown'];
	let name = $state('');
	let draw = $state<number | null>(null);
	let unread = $state(false);
	let of = $state<Record<string, string | null>>({
		release: 'split',
		hand: 'right',
		grown: 'adult'
	});

	const draft = useDraft(
		'new archer',
		() => ({ name, draw, of }),
		(was) => ({ name, draw, of } = was),
		'rack'
	);

	async function make(event: Event): Promise<void> {
		event.preventDefault();
		await attempt.run(async () => {
			const body = { name, notes: '', of: { kind: 'archer', draw_length_in: draw, ...of } };
			const made = await told(api.POST('/api/parts', { body: body as never }));
			draft.settle();
			onmade(made.line);
		});
	}
</script>

<Drafts />
<form onsubmit={make} aria-label="Somebody new">
	<label>Name <input class="line-input" bind:value={name} maxlength="200" required /></label>
	{#if fields['of.draw_length_in']}
		<MeasureInput
			note={{ ...fields['of.draw_length_in'], optional: true }}
			value={draw}
			slider={false}
			onvalue={(value) => (draw = value)}
			onunread={(reason) => (unread = reason !== null)}
		/>
	{/if}
	{#each ASKED as field (field)}
		<PickField
			note={fields[`of.${field}`]}
			path="archer.{field}"
			value={of[field]}
			onvalue={(value) => (of[field] = value)}
		/>
	{/each}
	<button class="act" disabled={!name.trim() || draw === null || unread}>Put on the rack</button>
	{#if attempt.fault}<p class="fault" role="alert">{attempt.fault}</p>{/if}
</form>

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 1.6rem;
		align-items: start;
		padding: 0.7rem 0;
	}
	form > :global(*) {
		max-width: 12rem;
	}
	label {
		color: var(--quiet);
		font-size: 0.82rem;
		line-height: 24px;
		display: grid;
		align-content: start;
	}
	label input {
		font-size: 1rem;
	}
	.act {
		margin-top: 1.5rem;
	}
	.fault {
		color: var(--brick);
		max-width: none;
		flex: 1 1 100%;
	}
	@media (max-width: 560px) {
		form > :global(*) {
			flex: 1 1 8.5rem;
			max-width: none;
		}
	}
</style>
