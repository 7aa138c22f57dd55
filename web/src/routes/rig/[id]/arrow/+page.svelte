<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import ArrowPlate from '$lib/plates/ArrowPlate.svelte';

	const bench = useBench();
	const parts = $derived(bench().bench.arrow?.parts_gr);
</script>

<Station
	id="arrow"
	leaves={[
		{ id: 'chronograph', title: 'Chronograph', body: chronograph, trial: true },
		{ id: 'another', title: 'Another set', body: another }
	]}
>
	{#snippet plate()}<ArrowPlate />{/snippet}
	{#snippet controls()}
		<MeasureField path="arrow.shaft_length_in" low={26} high={34} />
		<MeasureField path="arrow.static_spine" low={300} high={1300} step={10} />
		<MeasureField path="arrow.point_gr" low={40} high={300} step={5} />
		<MeasureField path="arrow.weighed_gr" label="Weighed" assumed={parts} low={200} high={800} />
		<MeasureField path="arrow.grains_per_inch" label="Shaft, grains per inch" slider={false} />
		<MeasureField path="arrow.insert_gr" slider={false} />
		<MeasureField path="arrow.nock_gr" slider={false} />
		<MeasureField path="arrow.fletching_gr" label="Fletching" slider={false} />
		<MeasureField path="arrow.fletching_count" label="Feathers" slider={false} />
		<MeasureField path="arrow.diameter_mm" slider={false} />
		<SelectField path="arrow.material" />
		<SelectField path="size_term" />
		<MeasureField path="bow.maker_min_gpp" label="Maker's least gr/lb" slider={false} />
	{/snippet}
</Station>

{#snippet chronograph()}<Lazy of={() => import('$lib/controls/Chronograph.svelte')} />{/snippet}
{#snippet another()}
	{#await import('$lib/rack/PutOn.svelte') then { default: PutOn }}<PutOn
			slots={['arrows']}
		/>{/await}
{/snippet}
