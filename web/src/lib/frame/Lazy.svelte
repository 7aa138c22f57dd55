<script lang="ts" generics="Props extends Record<string, unknown> = Record<string, never>">
	import type { Component } from 'svelte';

	/** What is not seen at first comes when it is turned to, so that a page stays light. */
	interface Asked {
		of: () => Promise<{ default: Component<Props> }>;
		/** What it is given. */
		given?: Props;
	}
	let { of, given = {} as Props }: Asked = $props();
	let asked = $state(0);
	const coming = $derived.by(() => {
		void asked;
		return of();
	});
</script>

{#await coming}
	<p class="quiet" aria-busy="true">One moment …</p>
{:then { default: Come }}
	<Come {...given} />
{:catch}
	<p role="alert">
		This part did not come. <button class="link" onclick={() => asked++}>Try again</button>
	</p>
{/await}
