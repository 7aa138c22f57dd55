<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import TrialList from '$lib/controls/TrialList.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import DrawPlate from '$lib/plates/DrawPlate.svelte';

	const bench = useBench();
	const thumb = $derived(bench().value('archer.release') === 'thumb');
	const offset = $derived.by(() => {
		const drawn = bench().bench.force_draw;
		if (!drawn) return null;
		return (drawn.true_draw_in.value - (bench().bench.rig.archer.draw_length_in ?? 0)) * 25.4;
	});
</script>

<Station
	id="draw"
	leaves={[
		{ id: 'measure', title: 'Measure it', body: measure, trial: true },
		{ id: 'time', title: 'Over time', body: time },
		{ id: 'another', title: 'Another archer', body: another }
	]}
>
	{#snippet plate()}<DrawPlate />{/snippet}
	{#snippet controls()}
		<MeasureField path="archer.draw_length_in" />
		<div class="wide">
			<ChoiceField path="archer.release" />
		</div>
		<ChoiceField path="archer.hand" />
		{#if thumb}<MeasureField path="archer.thumb_offset_mm" assumed={offset} />{/if}
		<ChoiceField path="archer.grown" />
	{/snippet}
</Station>

{#snippet measure()}<Lazy of={() => import('$lib/controls/DrawReadings.svelte')} />{/snippet}
{#snippet time()}
	<Lazy of={() => import('$lib/plates/DrawHistoryPlate.svelte')} />
	<TrialList kinds={['draw']} empty="Draws that you take and keep are listed here." />
{/snippet}
{#snippet another()}
	{#await import('$lib/rack/PutOn.svelte') then { default: PutOn }}<PutOn
			slots={['archer']}
		/>{/await}
{/snippet}
