<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import TrialList from '$lib/controls/TrialList.svelte';
	import Station from '$lib/frame/Station.svelte';
	import InLinePlate from '$lib/plates/InLinePlate.svelte';

	/** Where the string runs beside limbs and riser, seen from behind, look by look. */
	const bench = useBench();
	type Look = TrialOf<'in_line'>;
	const takedown = $derived(bench().bench.takedown_recurve);
	const told = $derived(bench().bench.in_line);
	/** What the last look suggested to turn; it counts as turned once the archer says so. */
	const step = $derived(told?.learnt?.step_turns ?? [0, 0]);
	const turn = (turns: number): string => (turns ? String(turns) : '');
	let upper = $state('');
	let lower = $state('');
	let riser = $state('');
	let above = $state('');
	let below = $state('');
	let drawn = $state<Look['drawn']>('not_tried');
	let twist = $state<Look['twist']>('not_looked');
	let notes = $state('');
	let problem = $state<string | null>(null);
	let about = $state<number | null>(null);
	let putRight: Look | null = null;

	const any = $derived([upper, lower, riser].some((text) => text.trim() !== ''));
	const read = async (text: string, quantity: string): Promise<number | null> =>
		text.trim() === '' ? null : reference.read(text, quantity);

	async function log(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		try {
			const trial = {
				kind: 'in_line' as const,
				upper_mm: await read(upper, 'small'),
				lower_mm: await read(lower, 'small'),
				riser_mm: await read(riser, 'small'),
				upper_turns: (await read(above, 'bolt')) ?? 0,
				lower_turns: (await read(below, 'bolt')) ?? 0,
				drawn,
				twist,
				notes,
				day: putRight?.day ?? ''
			};
			if (await bench().log('in-line', trial, about)) clear();
			else problem = bench().fault;
		} catch (error) {
			problem = (error as Error).message;
		}
	}

	function clear(): void {
		upper = lower = riser = above = below = notes = '';
		about = putRight = null;
		drawn = 'not_tried';
		twist = 'not_looked';
	}

	function edit(line: Schemas['TrialLine']): void {
		if (line.trial.kind !== 'in_line') return;
		const was = line.trial;
		const text = (mm: number | null | undefined): string =>
			mm == null ? '' : reference.text(mm, 'small', false);
		about = line.seq;
		putRight = was;
		upper = text(was.upper_mm);
		lower = text(was.lower_mm);
		riser = text(was.riser_mm);
		above = turn(was.upper_turns ?? 0);
		below = turn(was.lower_turns ?? 0);
		drawn = was.drawn ?? 'not_tried';
		twist = was.twist ?? 'not_looked';
		notes = was.notes ?? '';
	}
	const unit = $derived(reference.unit('small').label);
</script>

<Station id="in-line">
	{#snippet plate()}
		<InLinePlate
			onset={(mark, mm) => {
				const text = reference.text(mm, 'small', false);
				if (mark === 'upper') upper = text;
				else if (mark === 'lower') lower = text;
				else riser = text;
			}}
		/>
	{/snippet}
	{#snippet controls()}
		<form class="readings whole" onsubmit={log}>
			<div class="line">
				<span class="quiet">Right of the mark, {unit}:</span>
				{#if takedown}
					<label
						>upper <input
							class="line-input num"
							bind:value={upper}
							data-trial
							inputmode="text"
						/></label
					>
					<label>lower <input class="line-input num" bind:value={lower} /></label>
				{/if}
				<label
					>riser <input
						class="line-input num"
						bind:value={riser}
						data-trial={takedown ? undefined : ''}
					/></label
				>
				<span class="quiet">left is negative</span>
			</div>
			{#if takedown}
				<div class="line">
					<span class="quiet">Turned since the look before, to the right positive:</span>
					<label>upper <input class="line-input num" bind:value={above} placeholder="0" /></label>
					<label>lower <input class="line-input num" bind:value={below} placeholder="0" /></label>
					{#if about === null && step.some((t) => t)}
						<button
							type="button"
							class="link"
							onclick={() => ([above, below] = [turn(step[0] ?? 0), turn(step[1] ?? 0)])}
							>as told</button
						>
					{/if}
				</div>
			{/if}
			<div class="line">
				<label
					>drawn a hand's breadth
					<select bind:value={drawn}>
						<option value="not_tried">not tried</option>
						<option value="tracks">keeps its line</option>
						<option value="leaves">leaves its line</option>
					</select></label
				>
				<label
					>twist
					<select bind:value={twist}>
						<option value="not_looked">not looked</option>
						<option value="none">none</option>
						<option value="upper">upper limb</option>
						<option value="lower">lower limb</option>
					</select></label
				>
				<input
					class="line-input notes"
					bind:value={notes}
					maxlength="200"
					placeholder="notes"
					aria-label="Notes on the look"
				/>
				<button class="act" disabled={!any || bench().busy}
					>{about === null ? 'Log this look' : 'Put it right'}</button
				>
				{#if about !== null}<button type="button" class="link" onclick={clear}>Leave it</button
					>{/if}
			</div>
			<p class="quiet" class:wrong={problem} aria-live="polite">
				{problem ??
					(takedown
						? 'Unstring it to turn a pocket; use a stringer.'
						: 'Braced, belly to you; one eye shut, string over the grip.')}
			</p>
		</form>
	{/snippet}
	{#snippet more()}
		<TrialList
			kinds={['in_line']}
			empty="Nobody looked from behind yet."
			edits="in_line"
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
		width: 4.5rem;
	}
	.notes {
		width: 9rem;
	}
</style>
