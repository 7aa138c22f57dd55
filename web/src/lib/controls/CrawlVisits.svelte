<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Arrows with one crawl from one distance: the chart above is learnt from them. */
	const bench = useBench();
	let distance = $state('');
	let crawl = $state('');
	let heights = $state('');
	let arrows = $state<TrialOf<'crawl_visit'>['arrows']>('count');
	const form = new TrialForm('crawl_visit', bench, () => (heights = ''));
	const log = () =>
		form.log(
			'crawls',
			async () => ({
				distance_m: await reference.read(distance, 'distance'),
				crawl_mm: crawl.trim() ? await reference.read(crawl, 'crawl') : 0,
				heights_cm: await reference.readAll(heights, 'spot'),
				arrows
			}),
			$state.snapshot(bench().changes) as Record<string, unknown>
		);
	const edit = form.edit((was) => {
		distance = reference.text(was.distance_m, 'distance', false);
		crawl = reference.text(was.crawl_mm, 'crawl', false);
		heights = was.heights_cm.map((h) => reference.text(h, 'spot', false)).join(' ');
		arrows = was.arrows ?? 'count';
	});
</script>

<TrialEntry
	{form}
	notesOn="this distance"
	label="Log this distance"
	ready={Boolean(distance.trim() && heights.trim())}
	hint="On the level, tip on the mark, the same anchor: how far above the mark each arrow landed; − is low. Without a crawl it is 0. Sighters are listed and do not count."
	onlog={log}
>
	{#snippet above()}
		<div class="line">
			<label
				>from <input
					class="line-input num"
					bind:value={distance}
					data-trial
					aria-label="Distance of this visit"
				/>
				{reference.unit('distance').label}</label
			>
			<label
				>crawl <input
					class="line-input num"
					bind:value={crawl}
					placeholder="0"
					aria-label="Crawl of this visit"
				/>
				{reference.unit('crawl').label}</label
			>
			<label
				>arrows
				<select class="line-input" bind:value={arrows} aria-label="Whether these arrows count">
					<option value="count">count</option>
					<option value="sighters">are sighters</option>
				</select></label
			>
		</div>
	{/snippet}
	<label
		>above the mark
		<input
			class="line-input many"
			bind:value={heights}
			placeholder="2 -1.5 3"
			aria-label="How far above the mark each arrow landed"
		/>
		{reference.unit('spot').label}</label
	>
</TrialEntry>
<TrialList
	kinds={['crawl_visit']}
	empty="No distance was shot for the chart yet."
	edits="crawl_visit"
	onedit={edit}
/>

<style>
	.line select {
		width: 8rem;
	}
	.many {
		width: 11rem;
	}
</style>
