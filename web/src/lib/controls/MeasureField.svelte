<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { valueAt } from '$lib/bench/paths';
	import { reference } from '$lib/bench/reference.svelte';
	import { deeds } from '$lib/frame/window.svelte';
	import MeasuredBy from './MeasuredBy.svelte';
	import MeasureInput from './MeasureInput.svelte';

	/** A measurement of the rig on the bench, by its dotted path. */
	interface Props {
		path: string;
		label?: string;
		assumed?: number | null;
		slider?: boolean;
		low?: number;
		high?: number;
		step?: number;
	}
	let { path, ...rest }: Props = $props();
	const keep = () => deeds.page?.keep?.();

	const bench = useBench();
	const note = $derived(reference.catalog?.fields[path]);
	const kept = $derived.by(() => {
		if (!bench().isChanged(path)) return null;
		const was = valueAt(bench().kept.rig, path) as number | null;
		return was == null ? 'not set' : reference.text(was, note?.quantity ?? 'count');
	});
	/** A refusal of the fields' ranges, or of the models where it names this field. */
	const problem = $derived(bench().problem(path));

	function set(value: number | null): void {
		const whole = value !== null && note?.quantity === 'count';
		bench().set(path, whole ? Math.round(value) : value);
	}
</script>

{#if note}
	<MeasureInput
		{note}
		value={bench().value(path) as number | null}
		{problem}
		{kept}
		reset={bench().turns}
		onvalue={set}
		onenter={keep}
		onunread={(reason) => {
			if (reason) bench().unread[path] = reason;
			else delete bench().unread[path];
		}}
		{...rest}
	/>
	{#if bench().kept.measured.some((m) => m.path === path)}<MeasuredBy {path} />{/if}
{/if}
