<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { day } from '$lib/format/day';

	/** Where a measured setting comes from: one step to the trial, on whatever rig it was. */
	let { path }: { path: string } = $props();
	const bench = useBench();
	const source = $derived(
		bench().isChanged(path) ? undefined : bench().kept.measured.find((m) => m.path === path)
	);
	/** Those that came without an entry of their own stand by the entry that brought them. */
	const entry = $derived(
		source === undefined ? 0 : source.seq > 0 ? source.seq : Math.floor(-source.seq / 4)
	);
</script>

{#if source}
	<a class="link" href="/rig/{source.rig_id ?? bench().id}/keep#entry-{entry}"
		>measured {day(source.day)}{source.rig ? ` with ${source.rig}` : ''}</a
	>
{/if}

<style>
	a {
		display: block;
		font-size: 0.82rem;
		font-weight: 400;
	}
</style>
