<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import TrialList from './TrialList.svelte';

	/** The plan of what is tuned, and a read of the shaft as it is: a tap, or 4 5 6. */
	type Tuned = NonNullable<TrialOf<'shaft_read'>['tuned']>;
	type Read = TrialOf<'shaft_read'>['read'];
	let { offered }: { offered: Tuned[] } = $props();
	const PATH: Record<Tuned, string> = {
		length: 'arrow.shaft_length_in',
		rear_taper: 'arrow.rear_taper_in',
		front_taper: 'arrow.front_taper_in'
	};
	const NAME: Record<Tuned, string> = {
		length: 'Length',
		rear_taper: 'Rear taper',
		front_taper: 'Front taper'
	};
	const READS: { id: Read; key: string; word: string }[] = [
		{ id: 'weak', key: '4', word: 'Flew weak' },
		{ id: 'straight', key: '5', word: 'Straight' },
		{ id: 'stiff', key: '6', word: 'Flew stiff' }
	];
	const USUAL = '3';
	const bench = useBench();
	// svelte-ignore state_referenced_locally (the first is where one begins)
	let tuned = $state<Tuned>(offered[0]!);
	let arrows = $state(USUAL);
	let distance = $state('');
	const plans = $derived(
		(bench().bench.shaft?.plans ?? []).filter((p) => offered.includes(p.tuned))
	);
	const plan = $derived(plans.find((p) => p.tuned === tuned));
	const now = $derived(bench().value(PATH[tuned]) as number);
	const moved = $derived(bench().isChanged(PATH[tuned]) ? { [PATH[tuned]]: now } : {});
	const form = new TrialForm('shaft_read', bench, () => {});
	const log = (read: Read) =>
		form.log(
			'arrow',
			async () => ({
				tuned,
				length_in: now,
				read,
				arrows: Math.round(await reference.read(arrows.trim() || USUAL, 'count')),
				distance_m: distance.trim() ? await reference.read(distance, 'distance') : null
			}),
			moved
		);
	form.keeps(
		'read of the shaft',
		() => ({ tuned, arrows, distance }),
		(was) => ({ tuned, arrows, distance } = was)
	);
	const edit = form.edit((was) => {
		tuned = was.tuned ?? 'length';
		arrows = String(was.arrows ?? USUAL);
		distance = was.distance_m == null ? '' : reference.text(was.distance_m, 'distance', false);
	});

	function key(event: KeyboardEvent): void {
		if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement)
			return;
		const read = READS.find((r) => r.key === event.key);
		if (!read || event.ctrlKey || event.metaKey || event.altKey || bench().busy) return;
		event.preventDefault();
		void log(read.id);
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<form
	class="readings"
	aria-label="How the shaft flew"
	onsubmit={(e) => e.preventDefault()}
	onkeydown={key}
>
	{#if offered.length > 1}
		<div class="line" role="group" aria-label="What is tuned">
			{#each offered as one (one)}
				<label class="pick"><input type="radio" bind:group={tuned} value={one} /> {NAME[one]}</label
				>
			{/each}
		</div>
	{/if}
	{#if plan}
		<p class="plan" aria-live="polite"><SaidText said={plan.said} strong /></p>
		{#if plan.step === 'next' && plan.next_in != null}
			<p>
				<button type="button" class="act" onclick={() => bench().set(PATH[tuned], plan.next_in)}
					>{tuned === 'length' ? 'I cut it to' : 'I made it'}
					{reference.text(plan.next_in, 'draw')}</button
				>
			</p>
		{/if}
	{/if}
	<div class="reads" role="group" aria-label="How most of them flew">
		{#each READS as read (read.id)}
			<button type="button" class="act plain" disabled={bench().busy} onclick={() => log(read.id)}
				>{read.word} <kbd>{read.key}</kbd></button
			>
		{/each}
	</div>
	<div class="line">
		<span class="quiet">{NAME[tuned].toLowerCase()} {reference.text(now, 'draw')}</span>
		<label
			>arrows <input
				class="line-input few"
				bind:value={arrows}
				inputmode="numeric"
				aria-label="Arrows of this read"
			/></label
		>
		<label
			>from <input
				class="line-input num"
				bind:value={distance}
				aria-label="Distance of this read"
			/>
			{reference.unit('distance').label}</label
		>
		{#if form.about !== null}
			<button type="button" class="link" onclick={() => form.clear()}>Leave it</button>
		{/if}
	</div>
	{#if form.problem}<p class="wrong" role="alert">{form.problem}</p>{/if}
</form>
<TrialList
	kinds={['shaft_read']}
	empty="No read of a shaft that is being tuned yet."
	edits="shaft_read"
	onedit={edit}
/>

<style>
	.reads {
		display: grid;
		grid-template-columns: repeat(3, minmax(0, 1fr));
		gap: 0.5rem;
		margin: 0.4rem 0;
	}
	.reads .act {
		min-height: 44px;
	}
	@media (max-width: 480px) {
		.reads kbd {
			display: none;
		}
	}
	.plan {
		font-size: 1.02rem;
	}
	label {
		display: inline-flex;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
	}
	.few {
		width: 3rem;
	}
	.num {
		width: 4.2rem;
	}
</style>
