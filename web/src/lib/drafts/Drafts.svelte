<script lang="ts">
	import SaidText from '$lib/format/SaidText.svelte';
	import { open } from './draft.svelte';

	/** What stands in the forms of this page and was typed before: from when, and a way to drop it. */
	const shown = $derived(open.drafts.filter((d) => d.since || d.elsewhere || !d.safe));
	const time = (at: string) =>
		new Date(at).toLocaleString('en-GB', {
			day: 'numeric',
			month: 'short',
			hour: '2-digit',
			minute: '2-digit'
		});
	const named = (form: string) => form.charAt(0).toUpperCase() + form.slice(1);
</script>

{#each shown as draft (draft)}
	<div class="draft" role="status">
		{#if draft.since}
			<p>
				<strong>{named(draft.form)}:</strong> typed {time(draft.since)}, and waiting here.
				<button type="button" class="link" onclick={() => draft.drop()}
					>Drop it<span class="sr-only">: {draft.form}</span></button
				>
			</p>
			{#if draft.lines.length}
				<p class="quiet">
					Since then: {#each draft.lines as line, i (line.seq)}{i ? '; ' : ''}<SaidText
							said={line.said}
						/>{/each}
				</p>
			{/if}
		{/if}
		{#if draft.elsewhere}
			<p class="quiet">
				{named(draft.form)}: something typed {time(draft.elsewhere)} stands in another window, and stays
				there.
			</p>
		{/if}
		{#if !draft.safe}
			<p class="full" role="alert">
				This browser keeps nothing more: log what is typed here before you leave the page.
			</p>
		{/if}
	</div>
{/each}

<style>
	.draft {
		border-left: 3px solid var(--heather);
		padding-left: 0.7rem;
		margin: 0 0 0.6rem;
		font-size: 0.92rem;
		line-height: 1.3;
	}
	p {
		margin: 0.1rem 0;
	}
	.full {
		color: var(--brick);
	}
</style>
