<script lang="ts">
	import type { Component } from 'svelte';

	/** What is not seen at first comes when it is turned to, so that a page stays light. */
	let { of }: { of: () => Promise<{ default: Component }> } = $props();
	let asked = $state(0);
	const coming = $derived.by(() => {
		void asked;
		return of();
	});
</script>

{#await coming}
	<p class="quiet" aria-busy="true">One moment …</p>
{:then { default: Come }}
	<Come />
{:catch}
	<p role="alert">
		This part did not come. <button class="link" onclick={() => asked++}>Try again</button>
	</p>
{/await}
