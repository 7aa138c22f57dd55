<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import BowShape from './BowShape.svelte';
	import { fit, narrow } from './frame';
	import Label from '$lib/charts/Label.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot, type Pair } from '$lib/charts/plot';
	import Plate from './Plate.svelte';

	/** Up to three bows at your draw, to one scale, and their pulls at the same weight. */
	let { bows }: { bows: Schemas['Lined'][] } = $props();

	const bench = useBench();
	const rig = $derived(bench().bench.rig);
	const dashes = ['', '7 3', '2 3'];
	const name = (bow: Schemas['Lined']) =>
		`${reference.text(bow.length_in, 'bow_length')}, ${reference.text(bow.riser_in, 'bow_length')} riser`;
</script>

<Plate
	label="Bows side by side at your draw, and what they pull when all pull the same there"
	height={(width) => (narrow(width) ? 470 : 300)}
	heads={['Bow', 'String angle', 'Stacks from']}
	rows={bows.map((b) => [
		name(b),
		reference.text(b.string_angle_deg, 'angle'),
		b.stack_onset_in == null ? 'never' : reference.text(b.stack_onset_in, 'draw')
	])}
>
	{#snippet children(width, height)}
		{@const slim = narrow(width)}
		{@const drawn = slim ? width : width * 0.56}
		{@const deep = slim ? 216 : height}
		{@const each = drawn / Math.max(bows.length, 1)}
		{#each bows as bow, i (i)}
			{@const half = 37}
			{@const at = fit(
				{ x0: -6, x1: 28, y0: -half, y1: half },
				{ left: i * each, top: 0, width: each, height: deep - 34 },
				rig.archer.hand === 'left'
			)}
			<g opacity="0.35"><BowShape pose={bow.brace} {at} riser={false} /></g>
			<BowShape pose={bow.full_draw} {at} />
			<text
				class="halo"
				x={i * each + each / 2}
				y={deep - 18}
				text-anchor="middle"
				style:font-weight="600"><Label text={reference.text(bow.length_in, 'bow_length')} /></text
			>
			<text class="q halo" x={i * each + each / 2} y={deep - 3} text-anchor="middle"
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
			{@const at = plot({
				x: [d(from), d(to)],
				y: extent(forces),
				left: slim ? 44 : drawn + 56,
				right: width - 14,
				top: slim ? deep + 40 : 26,
				bottom: height - 44,
				nice: ['y']
			})}
			<Mark {at} x={d(me)} />
			<Note x={at.x(d(me)) - 6} y={at.bottom - 8} anchor="end" text="your draw" />
			{#each pulls as pull, i (i)}
				<Curve {at} points={pull} dash={dashes[i]} />
				<path
					d="M{at.left + 10} {at.top + 24 + i * 17}h26"
					stroke="var(--ink)"
					stroke-width="1.8"
					stroke-dasharray={dashes[i]}
				/>
				<Note
					x={at.left + 42}
					y={at.top + 28 + i * 17}
					anchor="start"
					tone="ink"
					text={rig.bow.takedown
						? name(bows[i]!)
						: reference.text(bows[i]!.length_in, 'bow_length')}
				/>
			{/each}
			<Axes
				{at}
				xLabel="draw, {reference.unit('draw').label}"
				yLabel="weight, {reference.unit('weight').label}, equal at your draw"
			/>
		{/if}
	{/snippet}
</Plate>
