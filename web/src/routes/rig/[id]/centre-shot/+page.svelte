<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import TrialEntry from '$lib/controls/TrialEntry.svelte';
	import TrialList from '$lib/controls/TrialList.svelte';
	import Station from '$lib/frame/Station.svelte';
	import CentreShotPlate from '$lib/plates/CentreShotPlate.svelte';

	/** Where the point stands beside the string: by plate and cut, and by looks from behind. */
	const bench = useBench();
	const plunger = $derived(bench().value('bow.side_plate') === 'plunger');
	const PLATE = ['bow.side_plate', 'bow.centre_cut_mm', 'bow.side_plate_mm'];
	let gap = $state('');
	const form = new TrialForm('centre_shot', bench, () => (gap = ''));
	const log = () =>
		form.log(
			'centre-shot',
			async () => ({ gap_mm: await reference.read(gap, 'small') }),
			bench().changed(PLATE)
		);
	const edit = form.edit((was) => (gap = reference.text(was.gap_mm, 'small', false)));
</script>

<Station id="centre-shot">
	{#snippet plate()}<CentreShotPlate />{/snippet}
	{#snippet controls()}
		<SelectField path="bow.side_plate" />
		<MeasureField path="bow.centre_cut_mm" low={-8} high={8} step={0.25} />
		<MeasureField
			path="bow.side_plate_mm"
			label={plunger ? 'Plunger stands out' : 'Plate, thick'}
			low={0}
			high={10}
			step={0.25}
		/>
		{#if plunger}<SelectField path="bow.plunger_spring" />{/if}
		<TrialEntry
			{form}
			notesOn="the look"
			label="Log this look"
			ready={gap.trim() !== ''}
			hint="Braced, arrow on the string, the string over the middle of both limbs; what the string hides is negative."
			onlog={log}
		>
			<label>Point's near edge <input class="line-input num" bind:value={gap} data-trial /></label>
			<span class="quiet">{reference.unit('small').label} outside the string</span>
		</TrialEntry>
	{/snippet}
	{#snippet more()}
		<TrialList
			kinds={['centre_shot']}
			empty="Nobody looked at the point yet."
			edits="centre_shot"
			onedit={edit}
		/>
	{/snippet}
</Station>
