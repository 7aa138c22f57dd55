<script lang="ts">
	import { api, told } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Simulated from '$lib/controls/Simulated.svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import ArrowPlate from '$lib/plates/ArrowPlate.svelte';

	const bench = useBench();
	const weigh = async (again: number) => {
		const body = { rig: bench().id, seed: bench().id, again, pace: 1 };
		return told(api.POST('/api/jobs/weigh', { body }));
	};
	const parts = $derived(bench().bench.arrow?.parts_gr);
</script>

<Station
	id="arrow"
	leaves={[
		{ id: 'what-if', title: 'What if', body: whatIf },
		{ id: 'speed', title: 'Speed', body: speed, trial: true },
		{ id: 'spine', title: 'Spine', body: spine },
		{ id: 'wood', title: 'Wood', body: wood },
		{ id: 'shafts', title: 'Shaft by shaft', body: shafts },
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
	{#snippet more()}
		<Simulated label="Try it without a grain scale" stop="Take it off" begin={weigh}>
			{#snippet children(read: { mass_gr: number })}a made-up arrow of your parts weighs
				{reference.text(read.mass_gr, 'mass')}.{/snippet}
		</Simulated>
	{/snippet}
</Station>

{#snippet whatIf()}<Lazy of={() => import('$lib/controls/WhatIf.svelte')} />{/snippet}
{#snippet speed()}<Lazy of={() => import('$lib/controls/Speed.svelte')} />{/snippet}
{#snippet spine()}<Lazy of={() => import('$lib/controls/Spine.svelte')} />{/snippet}
{#snippet wood()}<Lazy of={() => import('$lib/controls/Wood.svelte')} />{/snippet}
{#snippet shafts()}<Lazy of={() => import('$lib/controls/NumberedEnds.svelte')} />{/snippet}
{#snippet another()}
	{#await import('$lib/rack/PutOn.svelte') then { default: PutOn }}<PutOn
			slots={['arrows']}
		/>{/await}
{/snippet}
