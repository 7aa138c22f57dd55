<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import TrialEntry from '$lib/controls/TrialEntry.svelte';
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
	const offset = (mm: number | null | undefined): string =>
		mm == null ? '' : reference.text(mm, 'small', false);
	let upper = $state('');
	let lower = $state('');
	let riser = $state('');
	let above = $state('');
	let below = $state('');
	let drawn = $state<Look['drawn']>('not_tried');
	let twist = $state<Look['twist']>('not_looked');

	const form = new TrialForm('in_line', bench, () => {
		upper = lower = riser = above = below = '';
		drawn = 'not_tried';
		twist = 'not_looked';
	});
	const any = $derived([upper, lower, riser].some((text) => text.trim() !== ''));
	const read = async (text: string, quantity: string): Promise<number | null> =>
		text.trim() === '' ? null : reference.read(text, quantity);
	const log = () =>
		form.log('in-line', async () => ({
			upper_mm: await read(upper, 'small'),
			lower_mm: await read(lower, 'small'),
			riser_mm: await read(riser, 'small'),
			upper_turns: (await read(above, 'bolt')) ?? 0,
			lower_turns: (await read(below, 'bolt')) ?? 0,
			drawn,
			twist
		}));
	const edit = form.edit((was) => {
		upper = offset(was.upper_mm);
		lower = offset(was.lower_mm);
		riser = offset(was.riser_mm);
		above = turn(was.upper_turns ?? 0);
		below = turn(was.lower_turns ?? 0);
		drawn = was.drawn ?? 'not_tried';
		twist = was.twist ?? 'not_looked';
	});
	const unit = $derived(reference.unit('small').label);
</script>

<Station id="in-line">
	{#snippet plate()}
		<InLinePlate
			onset={(mark, mm) => {
				if (mark === 'upper') upper = offset(mm);
				else if (mark === 'lower') lower = offset(mm);
				else riser = offset(mm);
			}}
		/>
	{/snippet}
	{#snippet controls()}
		<TrialEntry
			{form}
			notesOn="the look"
			label="Log this look"
			ready={any}
			hint={takedown
				? 'Unstring it to turn a pocket; use a stringer.'
				: 'Braced, belly to you; one eye shut, string over the grip.'}
			onlog={log}
		>
			{#snippet above()}{@render offsets()}{/snippet}
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
		</TrialEntry>
	{/snippet}
	{#snippet more()}
		<div class="side"><SelectField path="arrow_side" /></div>
		<TrialList
			kinds={['in_line']}
			empty="Nobody looked from behind yet."
			edits="in_line"
			onedit={edit}
		/>
	{/snippet}
</Station>

{#snippet offsets()}
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
			{#if form.about === null && step.some((t) => t)}
				<button
					type="button"
					class="link"
					onclick={() => ([above, below] = [turn(step[0] ?? 0), turn(step[1] ?? 0)])}
					>as told</button
				>
			{/if}
		</div>
	{/if}
{/snippet}

<style>
	.side {
		max-width: 16rem;
	}
</style>
