<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import { asAiming } from '$lib/bench/aiming.svelte';
	import AimTable from './AimTable.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** What the archer knows already: a point-on, a crawl, or the two finger numbers. */
	type Known = TrialOf<'aim_known'>['known'];
	const bench = useBench();
	const asked = asAiming(bench);
	const implied = $derived(asked.told?.implied ?? null);
	const walks = $derived(bench().bench.crawls?.way === 'crawls');
	let known = $state<Known>('point_on');
	let distance = $state('');
	let doubt = $state('');
	let crawl = $state('');
	let at20 = $state('');
	let per10 = $state('');
	const form = new TrialForm(
		'aim_known',
		bench,
		() => (distance = doubt = crawl = at20 = per10 = '')
	);
	const DOUBT_M = 2;
	const DOUBT_CM = 6;
	const read = async (): Promise<Partial<TrialOf<'aim_known'>>> => {
		if (known === 'point_on')
			return {
				distance_m: await reference.read(distance, 'distance'),
				doubt_m: doubt.trim() ? await reference.read(doubt, 'distance') : DOUBT_M
			};
		if (known === 'crawl')
			return {
				distance_m: await reference.read(distance, 'distance'),
				crawl_mm: await reference.read(crawl, 'crawl'),
				doubt_cm: doubt.trim() ? await reference.read(doubt, 'spot') : DOUBT_CM
			};
		if (known === 'gap')
			return {
				distance_m: await reference.read(distance, 'distance'),
				gap_cm: await reference.read(crawl, 'spot'),
				crawl_mm: bench().bench.crawls?.crawl_mm ?? 0,
				doubt_cm: doubt.trim() ? await reference.read(doubt, 'spot') : DOUBT_CM
			};
		return {
			at_20m_fingers: await reference.read(at20, 'fingers'),
			per_10m_fingers: await reference.read(per10, 'fingers'),
			finger_mm: bench().bench.rig.archer.finger_width_mm ?? 18
		};
	};
	const log = () =>
		form.log(
			'crawls',
			async () =>
				({ known, ...(await read()) }) as Omit<TrialOf<'aim_known'>, 'kind' | 'notes' | 'day'>,
			$state.snapshot(bench().changes) as Record<string, unknown>
		);
	form.keeps(
		'what is known',
		() => ({ known, distance, doubt, crawl, at20, per10 }),
		(was) => ({ known, distance, doubt, crawl, at20, per10 } = was)
	);
	const edit = form.edit((was) => {
		known = was.known;
		distance = was.distance_m == null ? '' : reference.text(was.distance_m, 'distance', false);
		crawl =
			known === 'gap'
				? reference.text(was.gap_cm ?? 0, 'spot', false)
				: was.crawl_mm == null
					? ''
					: reference.text(was.crawl_mm, 'crawl', false);
		doubt =
			known !== 'point_on'
				? reference.text(was.doubt_cm ?? DOUBT_CM, 'spot', false)
				: reference.text(was.doubt_m ?? DOUBT_M, 'distance', false);
		at20 = was.at_20m_fingers == null ? '' : String(was.at_20m_fingers);
		per10 = was.per_10m_fingers == null ? '' : String(was.per_10m_fingers);
	});
	const ready = $derived(
		known === 'two_numbers'
			? Boolean(at20.trim() && per10.trim())
			: Boolean(distance.trim() && (known === 'point_on' || crawl.trim()))
	);
</script>

<TrialEntry
	{form}
	notesOn="what is known"
	label="Log what is known"
	{ready}
	hint="From earlier days with this bow and arrow. It counts as shot, as surely as you say; each shot weighs more in time."
	onlog={log}
>
	{#snippet above()}
		<div class="line">
			<label
				>I know
				<select class="line-input" bind:value={known} data-trial aria-label="What is known">
					<option value="point_on">where the tip is on</option>
					{#if walks}
						<option value="crawl">a crawl</option>
						<option value="two_numbers">my two numbers</option>
					{:else}
						<option value="gap">a gap</option>
					{/if}
				</select></label
			>
		</div>
	{/snippet}
	{#if known === 'two_numbers'}
		<label
			>at 20 m <input class="line-input num" bind:value={at20} aria-label="Finger widths at 20 m" /> fingers,</label
		>
		<label
			><input
				class="line-input num"
				bind:value={per10}
				aria-label="Finger widths less for each 10 m"
			/> less for each 10 m</label
		>
	{:else}
		<label
			>at <input class="line-input num" bind:value={distance} aria-label="Distance that is known" />
			{reference.unit('distance').label}</label
		>
		{#if known !== 'point_on'}
			<label
				>{known === 'crawl' ? 'crawl' : 'tip under the spot'}
				<input
					class="line-input num"
					bind:value={crawl}
					aria-label={known === 'crawl' ? 'Crawl that is known' : 'Gap that is known'}
				/>
				{reference.unit(known === 'crawl' ? 'crawl' : 'spot').label}</label
			>
		{/if}
		<label
			>good to <input
				class="line-input num"
				bind:value={doubt}
				placeholder={known !== 'point_on'
					? reference.text(DOUBT_CM, 'spot', false)
					: reference.text(DOUBT_M, 'distance', false)}
				aria-label={known === 'point_on' ? 'Known to' : 'Lands within'}
			/>
			{reference.unit(known === 'point_on' ? 'distance' : 'spot').label}</label
		>
	{/if}
</TrialEntry>
<AimTable />
{#if asked.problem}
	<p role="alert">{asked.problem}</p>
{:else if implied}
	<p>
		Taken together, what is known and shot asks for an eye
		{reference.valueText({ ...implied.eye_mm, quantity: 'crawl' })} over the arrow nock, at the rig’s
		own speed; with no word on either, for {reference.valueText({
			...implied.speed_fps,
			quantity: 'speed'
		})}.
		{implied.contradicts ? 'That is not the eye of this rig: see the findings.' : ''}
		<span class="quiet">Not a measured speed: a faster arrow and a higher eye look alike.</span>
	</p>
{/if}
<TrialList
	kinds={['aim_known']}
	empty="Nothing was typed in that was known before."
	edits="aim_known"
	onedit={edit}
/>

<style>
	.line select {
		width: 12rem;
	}
</style>
