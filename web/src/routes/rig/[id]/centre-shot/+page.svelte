<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import TrialList from '$lib/controls/TrialList.svelte';
	import Station from '$lib/frame/Station.svelte';
	import CentreShotPlate from '$lib/plates/CentreShotPlate.svelte';

	/** Where the point stands beside the string: by plate and cut, and by looks from behind. */
	const bench = useBench();
	const plunger = $derived(bench().value('bow.side_plate') === 'plunger');
	const PLATE = ['bow.side_plate', 'bow.centre_cut_mm', 'bow.side_plate_mm'];
	let gap = $state('');
	let notes = $state('');
	let problem = $state<string | null>(null);
	let about = $state<number | null>(null);
	let putRight: TrialOf<'centre_shot'> | null = null;

	async function log(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		try {
			const trial = {
				kind: 'centre_shot' as const,
				gap_mm: await reference.read(gap, 'small'),
				notes,
				day: putRight?.day ?? ''
			};
			const moved = about === null ? bench().changed(PLATE) : {};
			if (await bench().log('centre-shot', trial, about, moved)) clear();
			else problem = bench().fault;
		} catch (error) {
			problem = (error as Error).message;
		}
	}

	function clear(): void {
		gap = notes = '';
		about = putRight = null;
	}

	function edit(line: Schemas['TrialLine']): void {
		if (line.trial.kind !== 'centre_shot') return;
		about = line.seq;
		putRight = line.trial;
		gap = reference.text(line.trial.gap_mm, 'small', false);
		notes = line.trial.notes ?? '';
	}
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
		<form class="readings whole" onsubmit={log}>
			<div class="line">
				<label>Point's near edge <input class="line-input num" bind:value={gap} data-trial /></label
				>
				<span class="quiet">{reference.unit('small').label} outside the string</span>
				<input
					class="line-input notes"
					bind:value={notes}
					maxlength="200"
					placeholder="notes"
					aria-label="Notes on the look"
				/>
				<button class="act" disabled={!gap.trim() || bench().busy}
					>{about === null ? 'Log this look' : 'Put it right'}</button
				>
				{#if about !== null}<button type="button" class="link" onclick={clear}>Leave it</button
					>{/if}
			</div>
			<p class="quiet" class:wrong={problem} aria-live="polite">
				{problem ??
					'Braced, arrow on the string, the string over the middle of both limbs; what the string hides is negative.'}
			</p>
		</form>
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

<style>
	label {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
	}
	.num {
		width: 4.5rem;
	}
	.notes {
		width: 9rem;
	}
</style>
