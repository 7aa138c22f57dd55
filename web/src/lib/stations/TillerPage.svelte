<script lang="ts">
	import { untrack } from 'svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import TrialEntry from '$lib/controls/TrialEntry.svelte';
	import TrialList from '$lib/controls/TrialList.svelte';
	import Station from '$lib/frame/Station.svelte';
	import TillerPlate from '$lib/plates/TillerPlate.svelte';

	/** Both distances, limb to string, and the bolts: rough at first, final with the weights on. */
	let { id }: { id: 'tiller' | 'final-tiller' } = $props();
	const bench = useBench();
	const bolts = $derived(bench().bench.takedown_recurve);
	const BOLTS = ['limbs.upper_turns', 'limbs.lower_turns'];
	let upper = $state('');
	let lower = $state('');
	const form = new TrialForm('tiller', bench, () => (upper = lower = ''));
	/** The bolts as they are set here belong to what is measured. */
	form.keeps(
		untrack(() => (id === 'tiller' ? 'tiller' : 'final tiller')),
		() => ({ upper, lower }),
		(was) => ({ upper, lower } = was)
	);
	const log = () =>
		form.log(
			id,
			async () => ({
				upper_mm: await reference.read(upper, 'tiller'),
				lower_mm: await reference.read(lower, 'tiller')
			}),
			bench().changed(BOLTS)
		);
	const edit = form.edit((was) => {
		upper = reference.text(was.upper_mm, 'tiller', false);
		lower = reference.text(was.lower_mm, 'tiller', false);
	});
</script>

<Station {id}>
	{#snippet plate()}<TillerPlate />{/snippet}
	{#snippet controls()}
		<TrialEntry
			{form}
			notesOn="the tiller"
			label="Log both"
			ready={Boolean(upper.trim() && lower.trim())}
			hint="Braced, square from the string to where each limb leaves the riser; both with the same hand."
			onlog={log}
		>
			<span class="quiet">String to limb, {reference.unit('tiller').label}:</span>
			<label>upper <input class="line-input num" bind:value={upper} data-trial /></label>
			<label>lower <input class="line-input num" bind:value={lower} /></label>
		</TrialEntry>
		{#if bolts}
			<MeasureField path="limbs.upper_turns" label="Upper bolt, out" slider={false} />
			<MeasureField path="limbs.lower_turns" label="Lower bolt, out" slider={false} />
			<MeasureField path="limbs.degrees_per_turn" slider={false} />
		{/if}
		<MeasureField
			path="limbs.tiller_wanted_mm"
			assumed={bench().bench.tiller?.aim_mm ?? null}
			slider={false}
		/>
	{/snippet}
	{#snippet more()}
		<TrialList
			kinds={['tiller']}
			empty="Nobody measured the tiller yet."
			edits="tiller"
			onedit={edit}
		/>
	{/snippet}
</Station>
