<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import { terms } from '$lib/terms/terms.svelte';

	/** What a field is, in place: its definition, its unit and how it is measured. */
	interface Props {
		/** The setting's path. */
		path: string;
		title: string;
		help: string;
		quantity?: string | null;
		open: boolean;
		id: string;
	}
	let { path, title, help, quantity = null, open = $bindable(false), id }: Props = $props();

	const term = $derived(terms.of(path));
	const unit = $derived(quantity ? reference.unit(quantity).label : '');
	$effect(() => {
		if (open) void terms.load();
	});
</script>

{#if open}
	<div class="help" {id} role="note" aria-label="What it is: {title}">
		<p>
			{#if help && (!term || term.fields.length > 1)}{help}{/if}
			{#if term}
				<SaidText said={term.says} />
				{#if term.measured}<span class="how"><SaidText said={term.measured} /></span>{/if}
			{/if}
			{#if unit}<span class="quiet">Unit: {unit}.</span>{/if}
			{#if !help && !term && terms.loading}<span class="quiet">One moment …</span>{/if}
		</p>
		<p>
			{#if term}<a class="link" href="/terms#{term.id}">{term.word} in Terms</a>{/if}
			<button type="button" class="link" onclick={() => (open = false)}>Close</button>
		</p>
	</div>
{/if}

<style>
	.help {
		grid-column: 1 / -1;
		border-left: 3px solid var(--heather);
		padding: 0.1rem 0 0.1rem 0.6rem;
		margin: 0.2rem 0 0.4rem;
		font-size: 0.84rem;
		line-height: 1.35;
		overflow-wrap: anywhere;
	}
	.how {
		display: block;
	}
	p + p {
		display: flex;
		gap: 1rem;
	}
</style>
