<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { crawlLines, gapLines } from '$lib/controls/aimLines';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import DistancesField from '$lib/controls/DistancesField.svelte';
	import DistanceTable from '$lib/controls/DistanceTable.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import CrawlPlate from '$lib/plates/CrawlPlate.svelte';

	const bench = useBench();
	let chosen = $state(20);
	const aim = $derived(bench().bench.crawls);
	const walks = $derived(aim?.way === 'crawls');
	const sloped = $derived((bench().bench.rig.aim.slope_deg ?? 0) !== 0);
	const leaves = $derived([
		{ id: 'shots', title: 'From shots', body: shots, trial: true },
		{ id: 'known', title: 'Known', body: known },
		...(walks ? [{ id: 'counting', title: 'Counting', body: counting }] : []),
		{ id: 'courses', title: 'Courses', body: courses },
		{ id: 'anchors', title: 'Anchors', body: anchors },
		{ id: 'judging', title: 'Judging', body: judging },
		{ id: 'routine', title: 'Routine', body: routine }
	]);
</script>

<Station id="crawls" first="The chart" {leaves}>
	{#snippet plate()}
		{@render chart()}
		{#if aim && walks}
			<DistanceTable rows={aim.rows} lines={crawlLines(aim, sloped)} bind:chosen />
		{:else if aim}
			<DistanceTable rows={aim.gaps} lines={gapLines(aim, sloped)} bind:chosen />
		{/if}
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
	{/snippet}
</Station>

{#snippet chart()}
	{#if walks}
		<CrawlPlate bind:chosen />
	{:else}
		<Lazy
			of={() => import('$lib/plates/GapPlate.svelte')}
			given={{ chosen, onchoose: (distance: number) => (chosen = distance) }}
		/>
	{/if}
{/snippet}
{#snippet shots()}
	<Lazy of={() => import('$lib/controls/CrawlVisits.svelte')} given={{ chart }} />
{/snippet}
{#snippet known()}
	{@render chart()}
	<Lazy of={() => import('$lib/controls/KnownAim.svelte')} />
{/snippet}
{#snippet counting()}
	<Lazy of={() => import('$lib/controls/Counting.svelte')} />
{/snippet}
{#snippet anchors()}
	<Lazy of={() => import('$lib/controls/Anchors.svelte')} />
{/snippet}
{#snippet judging()}
	<Lazy of={() => import('$lib/controls/Judging.svelte')} />
{/snippet}
{#snippet courses()}
	<Lazy of={() => import('$lib/controls/Courses.svelte')} />
	<h2>Cards of the chart</h2>
	<p class="cards">
		{#if walks}
			<a class="link" href="/api/rigs/{bench().id}/card?card=tab">Tab card, PDF</a>
			<a class="link" href="/api/rigs/{bench().id}/card?card=tab&kind=svg">SVG</a>
		{/if}
		<a class="link" href="/api/rigs/{bench().id}/card?card=pocket">Pocket card, PDF</a>
		<a class="link" href="/api/rigs/{bench().id}/card?card=pocket&kind=svg">SVG</a>
		<a class="link" href="/api/rigs/{bench().id}/chart.csv">The chart as CSV</a>
		<a class="link" href="/api/rigs/{bench().id}/chart" download="chart.json">as JSON</a>
		<span class="quiet">At true size, as the rig is kept; a bar of 50 mm proves it.</span>
	</p>
{/snippet}
{#snippet routine()}
	<Lazy of={() => import('$lib/controls/ShotRoutine.svelte')} />
{/snippet}

<style>
	h2 {
		margin-top: 1rem;
	}
	.cards {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 1.2rem;
		margin: 0.4rem 0;
	}
	.cards .link {
		padding-block: 3px;
	}
</style>
