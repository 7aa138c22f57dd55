<script lang="ts">
	import { asAiming } from '$lib/bench/aiming.svelte';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import JudgedPlate from '$lib/plates/JudgedPlate.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Judging distance: guess, then walk it; and what it costs in hits. */
	const bench = useBench();
	const asked = asAiming(bench);
	const told = $derived(asked.told);
	let guess = $state('');
	let walked = $state('');
	let ground = $state<TrialOf<'judging'>['ground']>('mixed');
	let field = $state<HTMLInputElement>();
	const form = new TrialForm('judging', bench, () => {
		guess = walked = '';
		field?.focus();
	});
	const log = () =>
		form.log('crawls', async () => ({
			guessed_m: await reference.readAll(guess, 'distance'),
			walked_m: await reference.readAll(walked, 'distance'),
			ground
		}));
	form.keeps(
		'judging distance',
		() => ({ guess, walked, ground }),
		(was) => ({ guess, walked, ground } = was)
	);
	const edit = form.edit((was) => {
		guess = was.guessed_m.map((d) => reference.text(d, 'distance', false)).join(' ');
		walked = was.walked_m.map((d) => reference.text(d, 'distance', false)).join(' ');
		ground = was.ground ?? 'mixed';
	});
	const percent = (share: number) => reference.text(100 * Math.abs(share), 'percent');
</script>

{#if asked.problem}
	<p role="alert">{asked.problem}</p>
{:else if told}
	<JudgedPlate {told} />
	{#if told.judged}
		{@const j = told.judged}
		<p>
			Of {j.guesses} guesses:
			{#if j.real}<strong>{percent(j.bias.value)} too {j.bias.value > 0 ? 'far' : 'near'}</strong>
				as a rule (± {percent(j.bias.plus_minus)}), and{:else}no habit that is more than chance;{/if}
			<strong>{percent(j.spread.value)}</strong> (± {percent(j.spread.plus_minus)}) either way by
			chance.
		</p>
	{:else}
		<p>
			{told.more_guesses} more {told.more_guesses === 1 ? 'guess' : 'guesses'} and something can be said
			of how you judge.
		</p>
	{/if}
	<p class="quiet">
		Hits up and down in a spot of ± {reference.text(
			bench().bench.rig.aim.spot_half_height_cm ?? 5,
			'spot'
		)}, with your arrows’ scatter ({reference.text(told.spread_cm_30m, 'spot')} at 30 m) and a chart that
		is right. The last column of the table says to how much a distance must be judged, one standard deviation,
		to keep nine of ten of these hits.
	</p>
{:else}
	<p class="quiet" aria-busy="true">One moment …</p>
{/if}
<TrialEntry
	{form}
	notesOn="these guesses"
	label="Log"
	ready={Boolean(guess.trim() && walked.trim())}
	hint="Guess first and type it; then walk or tape it. Several are typed one after another, in the same order."
	onlog={log}
>
	<label
		>guessed <input
			class="line-input many"
			bind:this={field}
			bind:value={guess}
			placeholder="24"
			data-trial
			aria-label="Distance guessed"
		/></label
	>
	<label
		>walked <input
			class="line-input many"
			bind:value={walked}
			placeholder="27"
			aria-label="Distance walked"
		/>
		{reference.unit('distance').label}</label
	>
	<label
		>on
		<select class="line-input" bind:value={ground} aria-label="Ground">
			<option value="open">open ground</option>
			<option value="wood">woodland</option>
			<option value="slope">a slope</option>
			<option value="mixed">mixed ground</option>
		</select></label
	>
</TrialEntry>
<TrialList
	kinds={['judging']}
	empty="No distance was judged yet. Guesses go with you from rig to rig."
	edits="judging"
	onedit={edit}
/>

<style>
	.many {
		width: 7rem;
	}
	select {
		width: 9rem;
	}
	p {
		margin: 0.5rem 0;
	}
</style>
