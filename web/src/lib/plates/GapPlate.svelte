<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Band from '$lib/charts/Band.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import { nearest } from '$lib/charts/nearest';
	import Note from '$lib/charts/Note.svelte';
	import { plot, type Pair } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import { drag } from './drag';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';
	import SightDrawn from './SightDrawn.svelte';

	/** The chart of gaps with its band, and the sight picture at one distance. */
	let { chosen, onchoose }: { chosen: number; onchoose: (distance: number) => void } = $props();

	const bench = useBench();
	const aim = $derived(bench().bench.crawls);
	const kept = $derived(bench().dirty ? bench().keptBench.crawls : null);
	const rig = $derived(bench().bench.rig);
	const rows = $derived(
		(aim?.gaps ?? []).map((r, i) => ({ ...r, pm: aim!.gap_plus_minus_cm[i]! }))
	);
	const row = $derived(
		rows[
			nearest(
				rows.map((r) => r.distance_m),
				chosen
			)
		]
	);
	const dist = (v: number) => reference.inShown(v, 'distance');
	const cm = (v: number) => reference.inShown(v, 'spot');
	const shown = (of: readonly { distance_m: number; gap_cm: number }[]): Pair[] =>
		of.map((r) => [dist(r.distance_m), cm(r.gap_cm)]);
</script>

<Plate
	label="Where the tip is held over distance, and the sight picture"
	worked
	height={(width) => (narrow(width) ? 300 + Math.min(width, 330) + 30 : 330)}
	heads={['Distance', 'Tip under the spot', 'Beside the tip, shafts', 'Good from', 'to']}
	rows={rows.map((r) => [
		reference.text(r.distance_m, 'distance'),
		reference.valueText({ value: r.gap_cm, plus_minus: r.pm, quantity: 'spot' }),
		reference.text(r.tip_widths, 'shafts', false),
		reference.text(r.near_m, 'distance'),
		reference.text(r.far_m, 'distance')
	])}
>
	{#snippet children(width, height)}
		{@const slim = narrow(width)}
		{@const under = slim ? height - Math.min(width, 330) - 24 : height}
		{#if aim && row}
			{@const right = slim ? width : width * 0.6}
			{@const far = Math.max(...[...rows, ...aim.visits].map((r) => r.distance_m)) * 1.05}
			{@const at = plot({
				x: [0, dist(far)],
				y: [
					cm(Math.min(...rows.map((r) => r.gap_cm - r.pm), 0)),
					cm(Math.max(...rows.map((r) => r.gap_cm + r.pm), 20))
				],
				left: 48,
				right: right - 10,
				top: 28,
				bottom: under - 44,
				nice: ['y']
			})}
			<Band
				{at}
				rows={rows.map((r) => [dist(r.distance_m), cm(r.gap_cm - r.pm), cm(r.gap_cm + r.pm)])}
			/>
			{#if kept?.gaps.length}<Curve {at} points={shown(kept.gaps)} tone="ghost" width={2} />{/if}
			<Curve {at} points={shown(rows)} width={1.6} />
			<Axes
				{at}
				xLabel="distance, {reference.unit('distance').label}"
				yLabel="tip under the spot, {reference.unit('spot').label}"
				grid
			/>
			<path d="M{at.left} {at.y(0)}H{at.right}" stroke="var(--quiet)" />
			{#each rows as r (r.distance_m)}
				{@const here = r === row}
				<path
					d="M{at.x(dist(r.near_m))} {at.y(cm(r.gap_cm))}H{at.x(
						Math.min(dist(r.far_m), dist(far))
					)}"
					stroke={here ? 'var(--heather)' : 'var(--moss)'}
					stroke-width="5"
					opacity="0.55"
				/>
				<Spot
					{at}
					x={dist(r.distance_m)}
					y={cm(r.gap_cm)}
					of="own"
					tone={here ? 'heather' : 'ink'}
					size={here ? 5 : 3}
				/>
			{/each}
			{#each aim.visits as visit, i (i)}
				<Spot
					{at}
					x={dist(visit.distance_m)}
					y={cm(visit.gap_cm)}
					of={visit.known ? 'estimated' : 'measured'}
					tone="ochre"
					spread={[
						Math.max(cm(visit.gap_cm - visit.gap_plus_minus_cm), at.y.domain()[0]!),
						Math.min(cm(visit.gap_cm + visit.gap_plus_minus_cm), at.y.domain()[1]!)
					]}
				/>
			{/each}
			{#if aim.point_on_m && aim.point_on_m.value < far}
				{@const on = dist(aim.point_on_m.value)}
				<Mark {at} x={on} dash="3 3" />
				<Note x={at.x(on) - 6} y={at.top - 8} anchor="end" text="point-on" />
			{/if}
			<text class="q" x="44" y={under - 11}>bars: the distance may be this wrong</text>
			<rect
				x={at.left}
				y={at.top}
				width={Math.max(at.right - at.left, 0)}
				height={Math.max(at.bottom - at.top, 0)}
				fill="transparent"
				style:cursor="ew-resize"
				use:drag={(x) => {
					const d = rows.map((r) => at.x(dist(r.distance_m)));
					onchoose(rows[nearest(d, x)]!.distance_m);
				}}
			/>
			{@const side = slim ? Math.min(width, 330) - 44 : Math.min(width * 0.38 - 20, height - 56)}
			<SightDrawn
				{aim}
				at={rows.indexOf(row)}
				cx={slim ? side / 2 + 2 : width - side / 2 - 4}
				cy={(slim ? under + 26 : 24) + side / 2}
				{side}
				hand={rig.archer.hand ?? 'right'}
				{slim}
			/>
		{/if}
	{/snippet}
</Plate>
