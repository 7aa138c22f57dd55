<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import DistanceTable, { type Line } from './DistanceTable.svelte';
	import WordsField from './WordsField.svelte';
	import MeasureField from './MeasureField.svelte';
	import SelectField from './SelectField.svelte';

	/** The same crawls by both schools, tab marks and finger widths, and what each costs. */
	let chosen = $state(20);
	const bench = useBench();
	const aim = $derived(bench().bench.crawls);
	type Row = NonNullable<typeof aim>['rows'][number];
	const cost = (cm: number | null | undefined) =>
		cm == null ? '–' : reference.text(Math.abs(cm), 'spot', false);
	const counted = (
		r: Row,
		i: number,
		of: (c: NonNullable<typeof aim>['counted'][number]) => string
	) => (r.crawl_mm == null ? '–' : of(aim!.counted[i]!));
	const lines = $derived<Line<Row>[]>([
		{
			title: 'Crawl',
			quantity: 'crawl',
			of: (r) => (r.crawl_mm == null ? '–' : reference.text(r.crawl_mm, 'crawl', false))
		},
		{
			title: 'Tab marks',
			kind: 'main',
			of: (r, i) => counted(r, i, (c) => reference.text(c.marks, 'marks', false))
		},
		...(aim?.counted.some((c) => c.words)
			? [
					{
						title: 'in your words',
						of: (r: Row, i: number) => counted(r, i, (c) => c.words || '–')
					}
				]
			: []),
		{
			title: 'marks off by',
			quantity: 'spot',
			kind: 'quiet',
			of: (r, i) => counted(r, i, (c) => cost(c.marks_cost_cm))
		},
		{
			title: 'Finger widths',
			kind: 'main',
			of: (r, i) => counted(r, i, (c) => reference.text(c.fingers, 'finger_parts', false))
		},
		{
			title: 'fingers off by',
			quantity: 'spot',
			kind: 'quiet',
			of: (r, i) => counted(r, i, (c) => cost(c.fingers_cost_cm))
		},
		...(aim?.finger_rule
			? [
					{
						title: 'two numbers off by',
						quantity: 'spot',
						of: (_: Row, i: number) => cost(aim.finger_rule?.errors_cm[i])
					}
				]
			: [])
	]);
</script>

{#if aim?.rows.length}
	<DistanceTable rows={aim.rows} {lines} bind:chosen />
	{#if aim.finger_rule}
		<p>
			Two numbers to remember: <strong
				>{reference.text(aim.finger_rule.at_20m_fingers, 'fingers')}</strong
			>
			at {reference.text(20, 'distance')}, and
			<strong>{reference.text(-aim.finger_rule.per_10m_fingers, 'fingers')}</strong>
			less for each {reference.text(10, 'distance')} farther.
			<span class="quiet"
				>Only with this arrow: a slower one makes the first smaller and the second larger.</span
			>
		</p>
	{/if}
{/if}
<div class="fields">
	<SelectField path="aim.counted_by" />
	<SelectField path="aim.mark_parts" />
	<MeasureField path="archer.stitch_pitch_mm" label="Tab marks" slider={false} />
	<MeasureField path="archer.finger_width_mm" slider={false} />
	<WordsField path="aim.mark_words" />
</div>

<style>
	p {
		margin: 0.7rem 0;
	}
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
		gap: 0.4rem 2rem;
	}
</style>
