<script module lang="ts">
	/** Whether a field's help is open after a key: `?` opens and closes it, Esc closes it. */
	export function helpAfter(event: KeyboardEvent, open: boolean): boolean {
		if (event.key !== '?' && !(event.key === 'Escape' && open)) return open;
		event.preventDefault();
		return event.key === '?' && !open;
	}
</script>

<script lang="ts">
	/** A field's name with the sign that opens what it is; in the field the key `?` does the same. */
	interface Props {
		title: string;
		/** The field that it names; none where a group has its own label. */
		of?: string;
		helpId: string;
		open: boolean;
	}
	let { title, of, helpId, open = $bindable(false) }: Props = $props();
</script>

<span class="name">
	{#if of}<label for={of}>{title}</label>{:else}<span>{title}</span>{/if}
	<button
		type="button"
		tabindex="-1"
		aria-expanded={open}
		aria-controls={helpId}
		aria-label="What is {title}?"
		onclick={() => (open = !open)}>?</button
	>
</span>

<style>
	.name {
		display: flex;
		align-items: center;
		gap: 0.1rem;
		color: var(--quiet);
		font-size: 0.82rem;
		line-height: 1.2;
		min-height: 24px;
	}
	button {
		flex: none;
		width: 24px;
		height: 24px;
		border: 0;
		padding: 0;
		background: none;
		color: var(--quiet);
		cursor: help;
		font-size: 0.76rem;
		opacity: 0.75;
	}
	button:hover,
	button[aria-expanded='true'] {
		color: var(--heather);
		font-weight: 700;
		opacity: 1;
	}
	@media (max-width: 900px), (pointer: coarse) {
		button {
			width: 44px;
			height: 44px;
			margin: -10px 0;
		}
	}
</style>
