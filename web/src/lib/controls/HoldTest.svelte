<script lang="ts">
	import { onDestroy } from 'svelte';
	import { ApiProblem, type Schemas } from '$lib/api/client';
	import { useBench, type Entered, type TrialOf } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import TrialList from './TrialList.svelte';

	/** A timed hold at full draw: by the clock of this page, or typed. */
	const bench = useBench();
	const one = new One();
	const own = $derived(bench().bench.force_draw?.weight_at_draw_lbf.value ?? null);
	type Ended = TrialOf<'hold'>['ended'];
	let started = $state<number | null>(null);
	let elapsed = $state(0);
	let seconds = $state('');
	let weight = $state('');
	let ended = $state<Ended>('shaking');
	let notes = $state('');
	let problem = $state<string | null>(null);
	let about = $state.raw<Entered | null>(null);
	let putRight = $state.raw<TrialOf<'hold'> | null>(null);
	const draft = useDraft(
		'hold',
		() => ({ seconds, weight, ended, notes, about, putRight }),
		(was) => ({ seconds, weight, ended, notes, about, putRight } = was)
	);
	let ticking: ReturnType<typeof setInterval> | undefined;

	function clock(): void {
		if (started === null) {
			started = performance.now();
			elapsed = 0;
			ticking = setInterval(() => (elapsed = (performance.now() - started!) / 1000), 100);
		} else {
			seconds = ((performance.now() - started) / 1000).toFixed(1);
			stop();
		}
	}
	function stop(): void {
		clearInterval(ticking);
		started = null;
	}
	onDestroy(stop);

	async function log(): Promise<void> {
		problem = null;
		const typed = seconds;
		try {
			const held =
				weight.trim() === '' && own !== null ? own : await reference.read(weight, 'weight');
			const trial = {
				kind: 'hold' as const,
				weight_lbf: Math.round(held * 100) / 100,
				seconds: await reference.read(seconds, 'seconds'),
				ended,
				notes,
				day: putRight?.day ?? ''
			};
			if (await bench().log('weight', trial, about)) {
				const next = seconds !== typed; // the next may be typed already
				if (!next) seconds = notes = '';
				about = putRight = null;
				if (!next) draft.settle();
			} else problem = bench().fault;
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}

	function edit(line: Schemas['TrialLine']): void {
		if (line.trial.kind !== 'hold') return;
		about = { seq: line.seq, digest: line.digest };
		putRight = line.trial;
		weight = reference.text(line.trial.weight_lbf, 'weight', false);
		seconds = String(line.trial.seconds);
		ended = line.trial.ended ?? 'steady';
		notes = line.trial.notes ?? '';
	}
</script>

<form class="readings" onsubmit={one.on(log)}>
	<div class="line">
		<button type="button" class="act plain clock" onclick={clock}
			>{started === null ? 'Start the clock' : `Stop at ${elapsed.toFixed(1)} s`}</button
		>
		<input
			class="line-input num"
			bind:value={seconds}
			placeholder="seconds"
			aria-label="Seconds held"
			data-trial
		/>
		<span class="quiet">s at</span>
		<input
			class="line-input num"
			bind:value={weight}
			placeholder={own === null ? 'weight' : reference.text(own, 'weight', false)}
			aria-label="Weight held"
		/>
		<span class="quiet">{reference.unit('weight').label}, ended</span>
		<label
			><span class="sr-only">How it ended</span>
			<select bind:value={ended}>
				<option value="shaking">when it shook</option>
				<option value="steady">steady, let down by choice</option>
				<option value="pain">in pain</option>
			</select></label
		>
		<input
			class="line-input notes"
			bind:value={notes}
			maxlength="200"
			placeholder="notes"
			aria-label="Notes on the hold"
		/>
		<button class="act" disabled={!seconds.trim() || bench().busy}
			>{about === null ? 'Log this hold' : 'Put it right'}</button
		>
		{#if about !== null}
			<button type="button" class="link" onclick={() => (about = putRight = null)}>Leave it</button>
		{/if}
	</div>
	<p class="quiet" class:wrong={problem} aria-live="polite">
		{problem ??
			'Warm up, draw to anchor with an arrow on the string and a butt in front, hold until it shakes, let down. Rest two minutes between holds; three tell.'}
	</p>
</form>
<TrialList
	kinds={['hold', 'weighing']}
	empty="No hold was timed and no scale pulled yet."
	edits="hold"
	onedit={edit}
/>

{#if bench().value('archer.grown') === 'child' || bench().bench.hurt}
	{#await import('./CoachWord.svelte') then { default: CoachWord }}<CoachWord />{/await}
{/if}

<style>
	.clock {
		min-width: 9.5rem;
		font-variant-numeric: tabular-nums;
	}
	.readings .notes {
		width: 9rem;
	}
</style>
