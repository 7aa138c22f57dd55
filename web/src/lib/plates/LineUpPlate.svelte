<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import { line } from 'd3-shape';
	import type { Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from './Axes.svelte';
	import BowShape from './BowShape.svelte';
	import { fit } from './frame';
	import Label from './Label.svelte';
	import Plate from './Plate.svelte';

	/** Up to three bows at your draw, to one scale, and their pulls at the same weight. */
	let { bows }: { bows: Schemas['Lined'][] } = $props();

	const bench = useBench();
	const rig = $derived(bench().bench.rig);
	const dashes = ['', '7 3', '2 3'];
	const name = (bow: Schemas['Lined']) =>
		`${reference.text(bow.length_in, 'bow_length')}, ${reference.text(bow.riser_in, 'bow_length')} riser`;
	type Pair = [number, number];
</script>

<Plate
	label="Bows side by side at your draw, and what they pull when all pull the same there"
	height={300}
	heads={['Bow', 'String angle', 'Stacks from']}
	rows={bows.map((b) => [
		name(b),
		reference.text(b.string_angle_deg, 'angle'),
		b.stack_onset_in == null ? 'never' : reference.text(b.stack_onset_in, 'draw')
	])}
>
	{#snippet children(width, height)}
		{@const drawn = width * 0.56}
		{@const each = drawn / Math.max(bows.length, 1)}
		{#each bows as bow, i (i)}
			{@const half = 37}
			{@const at = fit(
				{ x0: -6, x1: 28, y0: -half, y1: half },
				{ left: i * each, top: 0, width: each, height: height - 34 },
				rig.archer.hand === 'left'
			)}
			<g opacity="0.35"><BowShape pose={bow.brace} {at} riser={false} /></g>
			<BowShape pose={bow.full_draw} {at} />
			<text
				class="halo"
				x={i * each + each / 2}
				y={height - 18}
				text-anchor="middle"
				style:font-weight="600"><Label text={reference.text(bow.length_in, 'bow_length')} /></text
			>
			<text class="q halo" x={i * each + each / 2} y={height - 3} text-anchor="middle"
				><Label text={`${reference.text(bow.string_angle_deg, 'angle')} at the string`} /></text
			>
		{/each}
		{#if bows.length}
			{@const d = (v: number) => reference.inShown(v, 'draw')}
			{@const w = (v: number) => reference.inShown(v, 'weight')}
			{@const me = bench().bench.force_draw?.true_draw_in.value ?? 28}
			{@const from = me - 6}
			{@const to = me + 2}
			{@const pulls = bows.map((b) =>
				b.draw_in
					.map((x, i): Pair => [x, b.force_lbf[i]!])
					.filter(([x]) => x >= from && x <= to)
					.map(([x, f]): Pair => [d(x), w(f)])
			)}
			{@const forces = pulls.flat().map(([, f]) => f)}
			{@const x = scaleLinear()
				.domain([d(from), d(to)])
				.range([drawn + 56, width - 14])}
			{@const y = scaleLinear()
				.domain([Math.min(...forces), Math.max(...forces)])
				.nice()
				.range([height - 44, 26])}
			<path
				d="M{x(d(me))} {y.range()[0]}V{y.range()[1]}"
				stroke="var(--heather)"
				stroke-dasharray="4 3"
			/>
			<text
				class="halo"
				x={x(d(me)) - 6}
				y={y.range()[0]! - 8}
				text-anchor="end"
				style:fill="var(--heather)">your draw</text
			>
			{#each pulls as pull, i (i)}
				<path
					d={line<Pair>(
						(p) => x(p[0]),
						(p) => y(p[1])
					)(pull)}
					fill="none"
					stroke="var(--ink)"
					stroke-width="1.8"
					stroke-dasharray={dashes[i]}
				/>
				<path
					d="M{x.range()[0]! + 10} {y.range()[1]! + 24 + i * 17}h26"
					stroke="var(--ink)"
					stroke-width="1.8"
					stroke-dasharray={dashes[i]}
				/>
				<text class="halo" x={x.range()[0]! + 42} y={y.range()[1]! + 28 + i * 17}
					><Label
						text={rig.bow.takedown
							? name(bows[i]!)
							: reference.text(bows[i]!.length_in, 'bow_length')}
					/></text
				>
			{/each}
			<Axes
				{x}
				{y}
				xLabel="draw, {reference.unit('draw').label}"
				yLabel="weight, {reference.unit('weight').label}, equal at your draw"
			/>
		{/if}
	{/snippet}
</Plate>
