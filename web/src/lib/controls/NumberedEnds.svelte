<script lang="ts">
	import { untrack } from 'svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { TypedPlace } from '$lib/bench/typedPlace.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import ButtPlate from '$lib/plates/ButtPlate.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Ends shot with numbered shafts: a tap on the butt or a line each; then who flies out. */
	interface Place {
		number: number;
		right_cm: number;
		up_cm: number;
	}
	const bench = useBench();
	const told = $derived(bench().bench.flyers ?? null);
	let distance = $state('');
	/** As in the end before, or the first six. */
	const before = untrack(() => bench().kept.trials.find((t) => t.trial.kind === 'numbered')?.trial);
	let numbers = $state(
		before?.kind === 'numbered' ? before.landings.map((l) => l.number).join(' ') : '1 2 3 4 5 6'
	);
	let places = $state<Place[]>([]);
	const form = new TrialForm('numbered', bench, () => (places = []));
	const order = $derived([
		...new Set(
			numbers
				.split(/[^0-9]+/)
				.filter(Boolean)
				.map(Number)
		)
	]);
	const next = $derived(order.find((n) => !places.some((p) => p.number === n)) ?? null);
	const HALF_CM = 40;
	const half = $derived(
		Math.max(
			HALF_CM,
			...places.flatMap((p) => [Math.abs(p.right_cm), Math.abs(p.up_cm)].map((v) => v * 1.15))
		)
	);
	const all = $derived(
		(told?.shafts ?? []).map((s) => ({
			number: s.number,
			right_cm: s.right_cm,
			up_cm: s.up_cm,
			loud: s.number === told?.worst && told.out
		}))
	);
	const allHalf = $derived(
		Math.max(
			15,
			1.3 * Math.max(...all.flatMap((p) => [Math.abs(p.right_cm), Math.abs(p.up_cm)]), 0)
		)
	);

	function place(right_cm: number, up_cm: number): void {
		if (next === null) return;
		const at = (cm: number) => Math.round(cm * 2) / 2;
		places = [...places, { number: next, right_cm: at(right_cm), up_cm: at(up_cm) }];
	}
	const typed = new TypedPlace(place);
	const log = async (): Promise<void> => {
		if (next !== null && typed.any) {
			await typed.take();
			return;
		}
		await form.log('arrow', async () => ({
			distance_m: await reference.read(distance, 'distance'),
			landings: $state.snapshot(places)
		}));
	};
	form.keeps(
		'numbered ends',
		() => ({ distance, numbers, places, right: typed.right, up: typed.up }),
		(was) => ({ distance, numbers, places, right: typed.right, up: typed.up } = was)
	);
	const edit = form.edit((was) => {
		distance = reference.text(was.distance_m, 'distance', false);
		places = was.landings.map((l) => ({ ...l }));
		numbers = places.map((p) => p.number).join(' ');
	});
</script>

<div class="two">
	<ButtPlate
		label="This end: tap where each shaft landed"
		{places}
		{half}
		ontap={place}
		note={next !== null ? `next: shaft ${next}` : order.length ? 'all are in' : 'no numbers yet'}
	/>
	{#if all.length}
		<ButtPlate
			label={`Every shaft's own place over all ends, at ${reference.text(told!.at_m, 'distance')}`}
			places={all}
			half={allHalf}
			spread={told?.spread_cm}
			note={`all ends, at ${reference.text(told!.at_m, 'distance')}`}
		/>
	{/if}
</div>
<TrialEntry
	{form}
	notesOn="this end"
	label={next !== null && typed.any ? `Put shaft ${next}` : 'Log this end'}
	ready={(next !== null && typed.any) || (places.length > 1 && Boolean(distance.trim()))}
	hint={typed.problem ||
		(order.length ? '' : 'Name the shafts by their numbers, one after another: 1 2 3.') ||
		'Say which shafts were shot, then tap the butt for each in turn, or type how far right and up it landed. Three ends and four shafts at least before one can be said to fly out.'}
	onlog={log}
>
	{#snippet above()}
		<div class="line">
			<label
				>shafts <input
					class="line-input many"
					bind:value={numbers}
					data-trial
					aria-label="Shafts shot, in the order they are put"
				/></label
			>
			<label
				>from <input
					class="line-input num"
					bind:value={distance}
					aria-label="Distance of this end"
				/>
				{reference.unit('distance').label}</label
			>
			{#if places.length}
				<button type="button" class="link" onclick={() => (places = places.slice(0, -1))}
					>Take the last back</button
				>
			{/if}
		</div>
	{/snippet}
	{#if next !== null}
		<label
			>{next}: right
			<input
				class="line-input num"
				bind:value={typed.right}
				placeholder="− left"
				aria-label="How far right shaft {next} landed"
			/></label
		>
		<label
			>up <input
				class="line-input num"
				bind:value={typed.up}
				placeholder="− below"
				aria-label="How far up shaft {next} landed"
			/>
			{reference.unit('spot').label}</label
		>
	{/if}
</TrialEntry>
<TrialList
	kinds={['numbered']}
	empty="No end was shot with numbered shafts yet."
	edits="numbered"
	onedit={edit}
/>

<style>
	.two {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
		gap: 0.6rem 1.4rem;
	}
	.many {
		width: 11rem;
	}
</style>
