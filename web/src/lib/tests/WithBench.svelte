<script lang="ts">
	import type { Component } from 'svelte';
	import { putBench, type RigBench } from '$lib/bench/bench.svelte';

	/** Puts a rig on the bench around one component under test. */
	let {
		bench,
		of: Of,
		given = {}
	}: {
		bench: RigBench;
		of: Component<Record<string, unknown>>;
		given?: Record<string, unknown>;
	} = $props();
	putBench(() => bench);
</script>

<Of {...given} />
