<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** The over-stiff school: groups shot one way and another, the better way kept. */
	type Way = TrialOf<'way'>;
	const bench = useBench();
	const told = $derived(bench().bench.shaft?.ways);
	const next = $derived(told?.next ?? null);
	const favoured = $derived(bench().bench.shaft?.favoured ?? 'left');
	const USUAL = '6';
	let side = $state<NonNullable<Way['side']> | ''>('');
	let bow = $state<NonNullable<Way['bow']> | ''>('');
	let arrow = $state<NonNullable<Way['arrow']> | ''>('');
	let size = $state('');
	let arrows = $state(USUAL);
	let distance = $state('');
	const form = new TrialForm('way', bench, () => {
		size = '';
		side = bow = arrow = '';
	});
	const as = $derived({
		side: side || (next?.side ?? favoured),
		bow: bow || (next?.bow ?? 'as_made'),
		arrow: arrow || (next?.arrow ?? 'as_made')
	});
	const log = () =>
		form.log('arrow', async () => ({
			...as,
			size_cm: await reference.read(size, 'spot'),
			arrows: Math.round(await reference.read(arrows.trim() || USUAL, 'count')),
			distance_m: await reference.read(distance, 'distance')
		}));
	form.keeps(
		'group one way',
		() => ({ side, bow, arrow, size, arrows, distance }),
		(was) => ({ side, bow, arrow, size, arrows, distance } = was)
	);
	const edit = form.edit((was) => {
		side = was.side ?? 'left';
		bow = was.bow ?? 'as_made';
		arrow = was.arrow ?? 'as_made';
		size = reference.text(was.size_cm, 'spot', false);
		arrows = String(was.arrows ?? USUAL);
		distance = reference.text(was.distance_m, 'distance', false);
	});
	const BOW = { as_made: 'bow as made', flipped: 'bow flipped' };
	const ARROW = { as_made: 'arrow as made', half_turned: 'arrow half turned' };
</script>

<TrialEntry
	{form}
	notesOn="this group"
	label="Log this group"
	ready={Boolean(size.trim() && distance.trim())}
	hint="Shoot as many each way, from one distance. Measure between the two arrows that lie farthest apart."
	onlog={log}
>
	{#snippet above()}
		<div class="line">
			<select
				value={as.side}
				onchange={(e) => (side = e.currentTarget.value as 'left')}
				aria-label="Side of the arrow"
			>
				<option value="left">on the left</option>
				<option value="right">on the right</option>
			</select>
			<select
				value={as.bow}
				onchange={(e) => (bow = e.currentTarget.value as 'flipped')}
				aria-label="End of the bow"
			>
				<option value="as_made">{BOW.as_made}</option>
				<option value="flipped">{BOW.flipped}</option>
			</select>
			<select
				value={as.arrow}
				onchange={(e) => (arrow = e.currentTarget.value as 'half_turned')}
				aria-label="Turn of the arrow"
			>
				<option value="as_made">{ARROW.as_made}</option>
				<option value="half_turned">{ARROW.half_turned}</option>
			</select>
		</div>
	{/snippet}
	<label
		>widest apart <input class="line-input num" bind:value={size} aria-label="Widest apart" />
		{reference.unit('spot').label}</label
	>
	<label
		>arrows <input
			class="line-input few"
			bind:value={arrows}
			inputmode="numeric"
			aria-label="Arrows of this group"
		/></label
	>
	<label
		>from <input class="line-input num" bind:value={distance} aria-label="Distance of this group" />
		{reference.unit('distance').label}</label
	>
</TrialEntry>
{#if told?.told.length}
	<table>
		<caption class="quiet"
			>Ways shot, in proportion at {reference.text(30, 'distance')}, the tightest first</caption
		>
		<tbody>
			{#each told.told as one (JSON.stringify(one.way))}
				<tr class:best={JSON.stringify(one.way) === JSON.stringify(told.best)}>
					<td>on the {one.way.side}, {BOW[one.way.bow]}, {ARROW[one.way.arrow]}</td>
					<td><Measure value={{ value: one.size_cm_30m, quantity: 'spot' }} /></td>
					<td>{one.arrows} arrows</td>
				</tr>
			{/each}
		</tbody>
	</table>
{/if}
<TrialList kinds={['way']} empty="No group was logged yet." edits="way" onedit={edit} />

<style>
	.few {
		width: 3rem;
	}
	table {
		width: 100%;
		font-size: 0.93rem;
	}
	caption {
		text-align: left;
	}
	td {
		padding: 0.2rem 0.8rem 0.2rem 0;
		border-bottom: 1px solid var(--hair);
	}
	.best td {
		font-weight: 700;
	}
</style>
