<script lang="ts">
	/** A word to press that asks for a file; the same file may be chosen again. */
	interface Props {
		/** What is pressed. */
		text: string;
		/** What the file is, for who cannot see where it stands. */
		label: string;
		accept: string;
		disabled?: boolean;
		onfile: (file: File) => void;
	}
	let { text, label, accept, disabled = false, onfile }: Props = $props();
	let picker = $state<HTMLInputElement>();
</script>

<button type="button" class="link" {disabled} onclick={() => picker?.click()}>{text}</button>
<input
	bind:this={picker}
	type="file"
	{accept}
	aria-label={label}
	hidden
	onchange={(event) => {
		const file = event.currentTarget.files?.[0];
		if (file) onfile(file);
		event.currentTarget.value = '';
	}}
/>

<style>
	button {
		padding-block: 3px;
	}
</style>
