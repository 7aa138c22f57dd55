<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** One arrow's spread at each step of a setting, with its band. */
	let { groups }: { groups: Schemas['GroupsView'] } = $props();
	const quantity = $derived(groups.quantity);
	const steps = $derived(groups.told.steps);
	const v = (value: number) => reference.inShown(value, quantity);
	const s = (value: number) => reference.inShown(value, 'spot');
</script>

<Plate
	label="How far one arrow scatters at each step of {groups.title}, as at 30 m"
	height={230}
	least={170}
	heads={[groups.title, 'One arrow', 'From', 'To', 'Arrows']}
	rows={steps.map((step) => [
		reference.text(step.value, quantity),
		reference.text(step.spread_cm, 'spot'),
		reference.text(step.low_cm, 'spot'),
		reference.text(step.high_cm, 'spot'),
		String(step.arrows)
	])}
>
	{#snippet children(width, height)}
		{@const values = steps.map((step) => v(step.value))}
		{@const room = 0.2 * (Math.max(...values) - Math.min(...values)) || 1}
		{@const at = plot({
			x: extent(values, room),
			y: [0, 1.1 * Math.max(...steps.map((step) => s(step.high_cm)))],
			left: 44,
			right: width - 14,
			top: 30,
			bottom: height - 44,
			nice: ['y']
		})}
		{#if groups.now != null}<Mark {at} x={v(groups.now)} />{/if}
		{#each steps as step (step.value)}
			{@const x = at.x(v(step.value))}
			{@const best = step.value === groups.told.best}
			<Spot
				{at}
				x={v(step.value)}
				y={s(step.spread_cm)}
				of="estimated"
				tone={best ? 'moss' : 'ink'}
				spread={[s(step.low_cm), s(step.high_cm)]}
			/>
			<Note {x} y={at.y(s(step.high_cm)) - 7} tone="quiet" text={`${step.arrows} arrows`} />
		{/each}
		<Axes
			{at}
			xLabel="{groups.title}, {reference.unit(quantity).label}"
			yLabel="one arrow’s spread as at 30 m, {reference.unit('spot').label}"
			places={values}
			says={(tick) => {
				const step = steps.find((one) => v(one.value) === tick);
				return step ? reference.text(step.value, quantity, false) : '';
			}}
		/>
	{/snippet}
</Plate>
