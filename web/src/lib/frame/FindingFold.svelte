<script lang="ts">
	import type { Finding } from '$lib/api/client';
	import FindingLine from './FindingLine.svelte';

	/** Findings where there is little room: what is fine is counted, and opens. */
	let { findings }: { findings: Finding[] } = $props();
	const serious = $derived(findings.filter((f) => f.level !== 'fine'));
	const fine = $derived(findings.filter((f) => f.level === 'fine'));
</script>

{#each serious as finding, i (finding.said.text + i)}<FindingLine {finding} />{/each}
{#if fine.length}
	<details>
		<summary class="link">{serious.length ? 'and ' : ''}{fine.length} fine</summary>
		{#each fine as finding, i (finding.said.text + i)}<FindingLine {finding} />{/each}
	</details>
{/if}

<style>
	summary {
		display: inline-flex;
		align-items: center;
		min-height: var(--target);
		font-size: 0.9rem;
	}
</style>
