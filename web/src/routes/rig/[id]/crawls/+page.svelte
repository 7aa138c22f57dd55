<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import CrawlTable from '$lib/controls/CrawlTable.svelte';
	import DistancesField from '$lib/controls/DistancesField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import CrawlPlate from '$lib/plates/CrawlPlate.svelte';

	const bench = useBench();
	let chosen = $state(20);
	const crawls = $derived(bench().bench.crawls);
	const sloped = $derived((bench().bench.rig.aim.slope_deg ?? 0) !== 0);
</script>

<Station
	id="crawls"
	first="The chart"
	leaves={[{ id: 'shots', title: 'From shots', body: shots, trial: true }]}
>
	{#snippet plate()}
		<CrawlPlate bind:chosen />
		{#if crawls}<CrawlTable {crawls} {sloped} bind:chosen />{/if}
	{/snippet}
	{#snippet controls()}
		<div class="wide">
			<ChoiceField
				path="archer.anchor"
				also={(a) => ({ 'archer.eye_above_nock_mm': reference.catalog?.eye_above_nock_mm[a] })}
			/>
		</div>
		<MeasureField path="archer.eye_above_nock_mm" low={50} high={150} step={1} />
		<MeasureField path="aim.slope_deg" low={-30} high={30} step={1} />
		<MeasureField path="aim.spot_half_height_cm" low={1} high={30} step={0.5} />
		<DistancesField />
		<MeasureField path="archer.finger_width_mm" slider={false} />
		<MeasureField path="archer.stitch_pitch_mm" label="Tab marks" slider={false} />
	{/snippet}
</Station>

{#snippet shots()}
	<CrawlPlate bind:chosen />
	<Lazy of={() => import('$lib/controls/CrawlVisits.svelte')} />
{/snippet}
