<script lang="ts">
	import { onDestroy, type Snippet } from 'svelte';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { ButtPhoto, type Shaft } from '$lib/bench/buttPhoto.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import Landed from './Landed.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Arrows with one crawl, or one gap, from one distance: the chart above is learnt from them. */
	type Visit = TrialOf<'crawl_visit'>;
	const COUNTED = { mm: 'crawl', marks: 'marks', fingers: 'finger_parts' } as const;
	/** The chart that is learnt; it gives way to the butt while arrows are tapped. */
	let { chart }: { chart: Snippet } = $props();
	const bench = useBench();
	const aim = $derived(bench().bench.crawls);
	const walks = $derived(aim?.way === 'crawls');
	const photo = new ButtPhoto();
	let distance = $state('');
	let setting = $state('');
	let heights = $state('');
	let drawn = $state(false);
	let tapped = $state<{ right_cm: number; up_cm: number; shaft: Shaft }[]>([]);
	let arrows = $state<Visit['arrows']>('count');
	/** How the crawl is counted: the archer's way, or that of the visit that is put right. */
	let as = $state<Visit['counted_by'] | null>(null);
	const counted = $derived(as ?? bench().bench.rig.aim.counted_by ?? 'mm');
	const places = $derived(photo.src ? photo.places : tapped);
	const form = new TrialForm('crawl_visit', bench, () => {
		heights = '';
		tapped = [];
		as = null;
		photo.leave();
	});
	onDestroy(() => photo.leave());

	/** What one mark or finger width measures. */
	function each(way: 'marks' | 'fingers'): number {
		if (form.was?.counted_by === way && form.was.each_mm) return form.was.each_mm;
		const archer = bench().bench.rig.archer;
		return (way === 'marks' ? archer.stitch_pitch_mm : archer.finger_width_mm) ?? 1;
	}
	async function crawl(): Promise<Partial<Visit>> {
		if (!walks) {
			const gap_cm = setting.trim() ? await reference.read(setting, 'spot') : 0;
			return { crawl_mm: aim?.crawl_mm ?? 0, counted_by: 'mm', gap_cm };
		}
		const read = setting.trim() ? await reference.read(setting, COUNTED[counted]) : 0;
		if (counted === 'mm') return { crawl_mm: read, counted_by: 'mm' };
		return { counted_by: counted, counted: read, each_mm: each(counted) };
	}
	const typed = $derived(Boolean(heights.trim()) || !drawn);
	const log = () =>
		form.log(
			'crawls',
			async () =>
				({
					distance_m: await reference.read(distance, 'distance'),
					...(await crawl()),
					heights_cm: typed ? await reference.readAll(heights, 'spot') : places.map((p) => p.up_cm),
					arrows,
					by: typed
						? form.was?.by === 'simulated'
							? 'simulated'
							: 'typed'
						: photo.src
							? photo.simulated
								? 'simulated'
								: 'photo'
							: (form.was?.by ?? 'tapped')
				}) as Omit<Visit, 'kind' | 'notes' | 'day'>,
			$state.snapshot(bench().changes) as Record<string, unknown>
		);
	form.keeps(
		'visit',
		() => ({ distance, setting, heights, drawn, tapped, arrows, as }),
		(was) => ({ distance, setting, heights, drawn, tapped, arrows, as } = was)
	);
	const edit = form.edit((was) => {
		photo.leave();
		distance = reference.text(was.distance_m, 'distance', false);
		as = was.counted_by ?? 'mm';
		setting = walks
			? as === 'mm'
				? reference.text(was.crawl_mm ?? 0, 'crawl', false)
				: reference.text(was.counted ?? 0, COUNTED[as], false)
			: reference.text(was.gap_cm ?? 0, 'spot', false);
		heights = was.heights_cm.map((h) => reference.text(h, 'spot', false)).join(' ');
		arrows = was.arrows ?? 'count';
	});
	/** Into the fields with what the chart would shoot next. */
	type Next = NonNullable<NonNullable<typeof aim>['next']>;
	function take(next: Next): void {
		distance = reference.text(next.distance_m, 'distance', false);
		setting = reference.text(next.set_to, walks ? 'crawl' : 'spot', false);
		as = 'mm';
	}
	/** Visits are shot on the level. */
	const next = $derived(
		bench().bench.rig.aim.slope_deg
			? []
			: [
					{ why: 'most telling', n: aim?.next },
					{ why: 'walking back', n: aim?.walking_back }
				].flatMap(({ why, n }) => (n ? [{ why, n }] : []))
	);
	const unit = $derived(walks ? COUNTED[counted] : 'spot');
</script>

{#if !drawn}{@render chart()}{/if}
{#if next.length}
	<ul class="next">
		{#each next as { why, n } (why)}
			<li>
				<button type="button" class="link" onclick={() => take(n)}
					>{reference.text(n.distance_m, 'distance')}</button
				>
				<span class="quiet"
					>{why}: settles {reference.text(100 * n.settles, 'percent')} of what is unsure, may land
					{reference.text(n.low_cm, 'spot')} off{n.safe ? '' : ', past a usual butt'}</span
				>
			</li>
		{/each}
	</ul>
{/if}
{#if drawn}
	<Landed
		{photo}
		bind:tapped
		label="This visit: tap where each arrow landed"
		note="tap where each arrow landed; the middle is the spot"
		least={60}
	/>
{/if}
<TrialEntry
	{form}
	notesOn="this distance"
	label={typed ? 'Log this distance' : `Log ${places.length || ''}`}
	ready={Boolean(distance.trim() && (heights.trim() || (drawn && places.length)))}
	hint={walks
		? 'On the level, tip on the mark, the same anchor: how far above the mark each arrow landed; − is low. Without a crawl it is 0. Sighters are listed and do not count.'
		: 'On the level, the same anchor: how far under the spot the tip was held, and how far above the spot each arrow landed; − is over and low. Sighters do not count.'}
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
				>{walks ? 'crawl' : 'tip under the spot'}
				<input
					class="line-input num"
					bind:value={setting}
					placeholder="0"
					aria-label={walks ? 'Crawl of this visit' : 'How far under the spot the tip was held'}
				/>
				{#if walks}
					<select
						class="line-input"
						value={counted}
						onchange={(e) => (as = e.currentTarget.value as Visit['counted_by'])}
						aria-label="The crawl is counted by"
					>
						<option value="mm">{reference.unit('crawl').label}</option>
						<option value="marks">tab marks</option>
						<option value="fingers">finger widths</option>
					</select>
				{:else}{reference.unit(unit).label}{/if}</label
			>
			<label
				>arrows
				<select class="line-input" bind:value={arrows} aria-label="Whether these arrows count">
					<option value="count">count</option>
					<option value="sighters">are sighters</option>
				</select></label
			>
			<button type="button" class="link" aria-expanded={drawn} onclick={() => (drawn = !drawn)}
				>{drawn ? 'Type them instead' : 'Tap them on the butt'}</button
			>
		</div>
	{/snippet}
	<label
		>above the {walks ? 'mark' : 'spot'}
		<input
			class="line-input many"
			bind:value={heights}
			placeholder="2 -1.5 3"
			aria-label="How far above the mark each arrow landed"
		/>
		{reference.unit('spot').label}</label
	>
	{#if drawn && tapped.length && !photo.src}
		<button type="button" class="link" onclick={() => (tapped = tapped.slice(0, -1))}
			>Take the last back</button
		>
	{/if}
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
	.next {
		list-style: none;
		margin: 0.4rem 0 0;
		padding: 0;
	}
	.next .link {
		padding-block: 3px;
	}
</style>
