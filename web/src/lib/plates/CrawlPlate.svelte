<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Band from '$lib/charts/Band.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { plot, type Pair } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import { nearest } from '$lib/charts/nearest';
	import { narrow } from './frame';
	import { drag } from './drag';
	import Plate from './Plate.svelte';
	import SightDrawn from './SightDrawn.svelte';

	/** The crawl chart with its band and danger spaces, and the sight picture at one distance. */
	let { chosen = $bindable(20) }: { chosen: number } = $props();

	const bench = useBench();
	const crawls = $derived(bench().bench.crawls);
	const kept = $derived(bench().dirty ? bench().keptBench.crawls : null);
	const rig = $derived(bench().bench.rig);
	const rows = $derived(
		(crawls?.rows ?? []).map((r, i) => ({ ...r, pm: crawls!.plus_minus_mm[i]! }))
	);
	const aimed = $derived(rows.filter((r) => r.crawl_mm != null));
	const row = $derived(
		rows.length
			? rows.reduce((a, b) =>
					Math.abs(b.distance_m - chosen) < Math.abs(a.distance_m - chosen) ? b : a
				)
			: null
	);
	const dist = (v: number) => reference.inShown(v, 'distance');
	const mm = (v: number) => reference.inShown(v, 'crawl');
	const shown = (of: { distance_m: number; crawl_mm: number | null }[]): Pair[] =>
		of.flatMap((r) => (r.crawl_mm == null ? [] : [[dist(r.distance_m), mm(r.crawl_mm)] as Pair]));
</script>

<Plate
	label="Crawls over distance, and the sight picture"
	worked
	height={(width) => (narrow(width) ? 300 + Math.min(width, 330) + 30 : 330)}
	heads={['Distance', 'Crawl', 'Five metres nearer', 'Five metres farther']}
	rows={rows.map((r) => [
		reference.text(r.distance_m, 'distance'),
		r.crawl_mm == null
			? `hold over ${reference.text(r.hold_over_cm ?? 0, 'spot')}`
			: reference.valueText({ value: r.crawl_mm, plus_minus: r.pm, quantity: 'crawl' }),
		reference.text(r.impact_cm_if_5m_nearer, 'spot'),
		reference.text(r.impact_cm_if_5m_farther, 'spot')
	])}
>
	{#snippet children(width, height)}
		{@const slim = narrow(width)}
		{@const under = slim ? height - Math.min(width, 330) - 24 : height}
		{#if crawls && rows.length}
			{@const right = slim ? width : width * 0.6}
			{@const far = Math.max(...[...rows, ...crawls.visits].map((r) => r.distance_m)) * 1.05}
			{@const most = Math.max(...aimed.map((r) => r.crawl_mm! + r.pm), 20)}
			{@const at = plot({
				x: [0, dist(far)],
				y: [0, mm(most)],
				left: 44,
				right: right - 10,
				top: 28,
				bottom: under - 44,
				nice: ['y']
			})}
			{@const edge = (r: (typeof aimed)[number], sign: number) =>
				Math.max(mm(r.crawl_mm! + sign * r.pm), 0)}
			<Band {at} rows={aimed.map((r) => [dist(r.distance_m), edge(r, -1), edge(r, 1)])} />
			{#if kept}<Curve {at} points={shown(kept.rows)} tone="ghost" width={2} />{/if}
			<Curve {at} points={shown(aimed)} width={1.6} />
			<Axes
				{at}
				xLabel="distance, {reference.unit('distance').label}"
				yLabel="crawl, {reference.unit('crawl').label}, down the string"
				grid
			/>
			{#each aimed as r (r.distance_m)}
				{@const here = r.distance_m === row?.distance_m}
				<path
					d="M{at.x(dist(r.near_m))} {at.y(mm(r.crawl_mm!))}H{at.x(
						Math.min(dist(r.far_m), dist(far))
					)}"
					stroke={here ? 'var(--heather)' : 'var(--moss)'}
					stroke-width="5"
					opacity="0.55"
				/>
				<Spot
					{at}
					x={dist(r.distance_m)}
					y={mm(r.crawl_mm!)}
					of="own"
					tone={here ? 'heather' : 'ink'}
					size={here ? 5 : 3}
				/>
			{/each}
			{#each crawls.visits as visit, i (i)}
				<Spot
					{at}
					x={dist(visit.distance_m)}
					y={mm(visit.crawl_mm)}
					of={visit.known ? 'estimated' : 'measured'}
					tone="ochre"
					spread={[
						mm(Math.max(visit.crawl_mm - visit.plus_minus_mm, 0)),
						mm(visit.crawl_mm + visit.plus_minus_mm)
					]}
				/>
			{/each}
			{#if crawls.point_on_m && crawls.point_on_m.value < far}
				{@const on = dist(crawls.point_on_m.value)}
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
					chosen = rows[nearest(d, x)]!.distance_m;
				}}
			/>
		{/if}
		{#if crawls && row}
			{@const side = slim ? Math.min(width, 330) - 44 : Math.min(width * 0.38 - 20, height - 56)}
			<SightDrawn
				aim={crawls}
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
