<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import SaidText from '$lib/format/SaidText.svelte';

	/** Where a part is, in a word or a line, and why it must not be shot. */
	let { line }: { line: Schemas['PartLine'] } = $props();
	const on = $derived(line.rigs.filter((r) => r.is_on));
	const last = $derived(line.rigs.find((r) => !r.is_on));
</script>

{#if line.stop}<span class="stop"><strong>Stop:</strong> <SaidText said={line.stop} /></span>
{:else if line.kept}<span class={line.state}><SaidText said={line.kept} /></span>
{:else if on.length}<span>on {on.map((r) => r.rig).join(', ')}</span>
{:else}<span class="free"
		>{line.kind === 'archer' ? 'on no rig' : 'free'}{#if last}<span class="quiet"
				>, last on {last.rig}</span
			>{/if}</span
	>{/if}
{#each line.due as due, i (i)}<span class="due"><SaidText said={due} /></span>{/each}

<style>
	span {
		display: block;
		text-wrap: balance;
		line-height: 1.3;
	}
	.quiet {
		display: inline;
	}
	.stop {
		color: var(--brick);
	}
	.lent,
	.due {
		color: var(--ochre);
	}
	.free {
		color: var(--moss);
	}
	.put_away,
	.condemned {
		color: var(--quiet);
	}
</style>
