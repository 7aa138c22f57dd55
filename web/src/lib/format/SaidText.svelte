<script lang="ts">
	import type { Said } from '$lib/api/client';
	import Measure from './Measure.svelte';

	/** A sentence of the core with its values set in the archer's units, and the archer's words. */
	let { said, strong = false }: { said: Said; strong?: boolean } = $props();

	const parts = $derived(said.text.split(/\{(\w+)\}/));
</script>

{#each parts as part, i (i)}{#if i % 2 === 0}{part}{:else}{@const value =
			said.values?.[part]}{#if value}{#if strong}<strong><Measure {value} /></strong>{:else}<Measure
					{value}
				/>{/if}{:else}{said.words?.[part] ?? `{${part}}`}{/if}{/if}{/each}
