<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
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
	let notes = $state('');
	let problem = $state<string | null>(null);
	let about = $state<number | null>(null);
	let putRight: TrialOf<'tiller'> | null = null;

	async function log(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		try {
			const trial = {
				kind: 'tiller' as const,
				upper_mm: await reference.read(upper, 'tiller'),
				lower_mm: await reference.read(lower, 'tiller'),
				notes,
				day: putRight?.day ?? ''
			};
			// The bolts as they are set here belong to what is measured.
			const turned = about === null ? bench().changed(BOLTS) : {};
			if (await bench().log(id, trial, about, turned)) clear();
			else problem = bench().fault;
		} catch (error) {
			problem = (error as Error).message;
		}
	}

	function clear(): void {
		upper = lower = notes = '';
		about = putRight = null;
	}

	function edit(line: Schemas['TrialLine']): void {
		if (line.trial.kind !== 'tiller') return;
		about = line.seq;
		putRight = line.trial;
		upper = reference.text(line.trial.upper_mm, 'tiller', false);
		lower = reference.text(line.trial.lower_mm, 'tiller', false);
		notes = line.trial.notes ?? '';
	}
</script>

<Station {id}>
	{#snippet plate()}<TillerPlate />{/snippet}
	{#snippet controls()}
		<form class="readings whole" onsubmit={log}>
			<div class="line">
				<span class="quiet">String to limb, {reference.unit('tiller').label}:</span>
				<label>upper <input class="line-input num" bind:value={upper} data-trial /></label>
				<label>lower <input class="line-input num" bind:value={lower} /></label>
				<input
					class="line-input notes"
					bind:value={notes}
					maxlength="200"
					placeholder="notes"
					aria-label="Notes on the tiller"
				/>
				<button class="act" disabled={!upper.trim() || !lower.trim() || bench().busy}
					>{about === null ? 'Log both' : 'Put it right'}</button
				>
				{#if about !== null}<button type="button" class="link" onclick={clear}>Leave it</button
					>{/if}
			</div>
			<p class="quiet" class:wrong={problem} aria-live="polite">
				{problem ??
					'Braced, square from the string to where each limb leaves the riser; both with the same hand.'}
			</p>
		</form>
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

<style>
	label {
		display: inline-flex;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
	}
	.num {
		width: 5rem;
	}
	.notes {
		width: 9rem;
	}
</style>
