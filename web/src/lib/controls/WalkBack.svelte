<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import WalkBackPlate from '$lib/plates/WalkBackPlate.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Arrows at one vertical line, distance by distance. */
	const bench = useBench();
	let distance = $state('');
	let offsets = $state('');
	const form = new TrialForm('walk_back', bench, () => (offsets = ''));
	const log = () =>
		form.log('flight', async () => ({
			distance_m: await reference.read(distance, 'distance'),
			offsets_cm: await reference.readAll(offsets, 'spot')
		}));
	form.keeps(
		'walk-back',
		() => ({ distance, offsets }),
		(was) => ({ distance, offsets } = was)
	);
	const edit = form.edit((was) => {
		distance = reference.text(was.distance_m, 'distance', false);
		offsets = was.offsets_cm.map((o) => reference.text(o, 'spot', false)).join(' ');
	});
</script>

{#if bench().bench.walk_back?.visits.length}<WalkBackPlate />{/if}
<TrialEntry
	{form}
	notesOn="this distance"
	label="Log this distance"
	ready={Boolean(distance.trim() && offsets.trim())}
	hint="One vertical line on a wide butt, the same aim each time, from near to far: three distances at least, the farthest three times the nearest. How far right of the line each arrow landed; − is left."
	onlog={log}
>
	<label
		>from <input class="line-input num" bind:value={distance} aria-label="Distance from the line" />
		{reference.unit('distance').label}</label
	>
	<label
		>right of the line
		<input
			class="line-input many"
			bind:value={offsets}
			placeholder="2 -1.5 3"
			aria-label="How far right of the line each arrow landed"
		/>
		{reference.unit('spot').label}</label
	>
</TrialEntry>
<TrialList
	kinds={['walk_back']}
	empty="No distance was shot at the line yet."
	edits="walk_back"
	onedit={edit}
/>

<style>
	.many {
		width: 11rem;
	}
</style>
