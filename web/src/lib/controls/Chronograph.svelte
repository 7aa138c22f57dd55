<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ChronographPlate from '$lib/plates/ChronographPlate.svelte';
	import TrialList from './TrialList.svelte';

	/** Speeds of arrows of one weight, typed one after another; two weights tell the most. */
	const bench = useBench();
	const now = $derived(bench().bench.arrow?.mass_gr ?? null);
	let mass = $state('');
	let speeds = $state('');
	let notes = $state('');
	let problem = $state<string | null>(null);
	let about = $state<number | null>(null);
	let putRight: TrialOf<'chronograph'> | null = null;

	async function log(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		try {
			const trial = {
				kind: 'chronograph' as const,
				mass_gr: await reference.read(mass, 'mass'),
				speeds_fps: await reference.readAll(speeds, 'speed'),
				notes,
				day: putRight?.day ?? ''
			};
			if (await bench().log('arrow', trial, about)) clear();
			else problem = bench().fault;
		} catch (error) {
			problem = (error as Error).message;
		}
	}

	function clear(): void {
		mass = speeds = notes = '';
		about = putRight = null;
	}

	function edit(line: Schemas['TrialLine']): void {
		if (line.trial.kind !== 'chronograph') return;
		const was = line.trial;
		about = line.seq;
		putRight = was;
		mass = reference.text(was.mass_gr, 'mass', false);
		speeds = was.speeds_fps.map((v) => reference.text(v, 'speed', false)).join(' ');
		notes = was.notes ?? '';
	}
</script>

<ChronographPlate />
<form class="readings" onsubmit={log}>
	<div class="line">
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
		<input
			class="line-input notes"
			bind:value={notes}
			maxlength="200"
			placeholder="notes"
			aria-label="Notes on the shots"
		/>
		<button class="act" disabled={!mass.trim() || !speeds.trim() || bench().busy}
			>{about === null ? 'Log these shots' : 'Put it right'}</button
		>
		{#if about !== null}<button type="button" class="link" onclick={clear}>Leave it</button>{/if}
	</div>
	<p class="quiet" class:wrong={problem} aria-live="polite">
		{problem ??
			'A few shots of arrows weighed on a scale, drawn as always; then as many of a weight a quarter heavier or lighter.'}
	</p>
</form>
<TrialList
	kinds={['chronograph']}
	empty="Nothing was shot over a chronograph yet."
	edits="chronograph"
	onedit={edit}
/>

<style>
	label {
		display: inline-flex;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
	}
	.num {
		width: 4.5rem;
	}
	.many {
		width: 13rem;
	}
	.notes {
		width: 8rem;
	}
</style>
