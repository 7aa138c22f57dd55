<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import PickField from './PickField.svelte';

	/** The same of a setting of the rig on the bench. */
	let { path, label }: { path: string; label?: string } = $props();
	const bench = useBench();
</script>

<PickField
	{path}
	{label}
	note={reference.catalog?.fields[path]}
	value={bench().value(path)}
	changed={bench().isChanged(path)}
	onvalue={(value) => bench().set(path, value)}
/>
