<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import ChronographPlate from '$lib/plates/ChronographPlate.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Speeds of arrows of one weight, typed one after another; two weights tell the most. */
	const bench = useBench();
	const now = $derived(bench().bench.arrow?.mass_gr ?? null);
	let mass = $state('');
	let speeds = $state('');
	const form = new TrialForm('chronograph', bench, () => (mass = speeds = ''));
	const log = () =>
		form.log('arrow', async () => ({
			mass_gr: await reference.read(mass, 'mass'),
			speeds_fps: await reference.readAll(speeds, 'speed')
		}));
	const edit = form.edit((was) => {
		mass = reference.text(was.mass_gr, 'mass', false);
		speeds = was.speeds_fps.map((v) => reference.text(v, 'speed', false)).join(' ');
	});
</script>

<ChronographPlate />
<TrialEntry
	{form}
	notesOn="the shots"
	label="Log these shots"
	ready={Boolean(mass.trim() && speeds.trim())}
	hint="A few shots of arrows weighed on a scale, drawn as always; then as many of a weight a quarter heavier or lighter."
	onlog={log}
>
	<label
		>arrow of <input
			class="line-input num"
			bind:value={mass}
			data-trial
			placeholder={now === null ? '' : reference.text(now, 'mass', false)}
			aria-label="Weight of the arrows shot"
		/>
		{reference.unit('mass').label}</label
	>
	<label
		>at <input
			class="line-input many"
			bind:value={speeds}
			placeholder="one speed after another"
			aria-label="Speeds of the shots"
		/>
		{reference.unit('speed').label}</label
	>
</TrialEntry>
<TrialList
	kinds={['chronograph']}
	empty="Nothing was shot over a chronograph yet."
	edits="chronograph"
	onedit={edit}
/>

<style>
	.many {
		width: 13rem;
	}
</style>
