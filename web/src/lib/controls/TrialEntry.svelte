<script lang="ts" generics="K extends Schemas['TrialLine']['trial']['kind']">
	import type { Snippet } from 'svelte';
	import type { Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import type { TrialForm } from '$lib/bench/trialForm.svelte';

	/** A trial's form: its own fields, then notes, the button, and what went wrong or how to measure. */
	interface Props {
		form: TrialForm<K>;
		/** What its notes are on, for who cannot see where they stand. */
		notesOn: string;
		label: string;
		ready: boolean;
		hint: string;
		onlog: () => Promise<void>;
		/** Lines of fields above the last one. */
		above?: Snippet;
		children: Snippet;
	}
	let { form, notesOn, label, ready, hint, onlog, above, children }: Props = $props();
	const bench = useBench();
</script>

<form
	class="readings whole"
	onsubmit={(event) => {
		event.preventDefault();
		void onlog();
	}}
>
	{@render above?.()}
	<div class="line">
		{@render children()}
		<input
			class="line-input notes"
			bind:value={form.notes}
			maxlength="200"
			placeholder="notes"
			aria-label="Notes on {notesOn}"
		/>
		<button class="act" aria-busy={form.busy} disabled={!ready || bench().busy || form.busy}
			>{form.about === null ? label : 'Put it right'}</button
		>
		{#if form.about !== null}
			<button type="button" class="link" onclick={() => form.clear()}>Leave it</button>
		{/if}
	</div>
	<p class="quiet" class:wrong={form.problem} aria-live="polite">{form.problem ?? hint}</p>
</form>

<style>
	.notes {
		width: 9rem;
	}
	form :global(label) {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
	}
	form :global(.num) {
		width: 4.7rem;
	}
</style>
