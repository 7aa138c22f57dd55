<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ArrowShape from './ArrowShape.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Dimension from './Dimension.svelte';
	import { drag } from './drag';
	import { fit, narrow } from './frame';
	import { nearest } from '$lib/charts/nearest';
	import Label from '$lib/charts/Label.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { plot, ruler, within, type Pair } from '$lib/charts/plot';
	import Rule from '$lib/charts/Rule.svelte';
	import Span from '$lib/charts/Span.svelte';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** The arrow to scale; speed and what stays in the bow over grains per pound; the window. */
	let { still = false }: { still?: boolean } = $props(); // beside another, nothing is moved
	const bench = useBench();
	const arrow = $derived(bench().bench.arrow);
	const shot = $derived(bench().bench.shot);
	const keptShot = $derived(bench().dirty ? bench().keptBench.shot : null);
	const window_ = $derived(bench().bench.window);
	const rig = $derived(bench().bench.rig);
	const speedOf = (s: typeof shot): Pair[] =>
		(s?.curve.gpp ?? []).map((g, i) => [g, reference.inShown(s!.curve.speed_fps[i]!, 'speed')]);
	const levers = $derived(bench().bench.levers);
	/** As long as the arrow may be drawn out to: fixed while a hand drags. */
	const ROOM = 2.2;
	const most = $derived(Math.max(bench().keptBench.rig.arrow.shaft_length_in! + ROOM, 30));
	const EIGHTH_IN = 1 / 8;

	function balance(inches: number): void {
		if (levers && !still)
			bench().set('arrow.point_gr', levers.point_gr[nearest(levers.balance_in, inches)]!);
	}
	function weigh(gpp: number): void {
		if (levers)
			bench().set('arrow.grains_per_inch', levers.grains_per_inch[nearest(levers.gpp, gpp)]!);
	}
	const residueOf = (s: typeof shot): Pair[] =>
		(s?.curve.gpp ?? []).map((g, i) => [g, (1 - s!.curve.efficiency[i]!) * 100]);
</script>

<Plate
	label="The arrow to scale, and speed and residue over grains per pound"
	height={(width) => (narrow(width) ? 640 : 430)}
	least={356}
	heads={['gr/lb', `speed, ${reference.unit('speed').label}`, 'stays in the bow, %']}
	rows={speedOf(shot)
		.filter((_, i) => i % 4 === 0)
		.map(([g, v], i) => [g.toFixed(0), v.toFixed(0), residueOf(shot)[i * 4]![1].toFixed(0)])}
>
	{#snippet children(width, height)}
		{#if arrow}
			{@const length = rig.arrow.shaft_length_in!}
			{@const at = fit(
				{ x0: length - most - 1.4, x1: length + 0.8, y0: -2.2, y1: 2.2 },
				{ left: 0, top: 8, width, height: 92 },
				rig.archer.hand === 'left'
			)}
			{@const on = (inches: number) => at.x(length - inches)}
			<ArrowShape
				{at}
				nock={length}
				lengthIn={length}
				diameterMm={rig.arrow.diameter_mm!}
				fletchings={rig.arrow.fletching_count}
			/>
			<path
				d="M{on(arrow.balance_in)} {at.y(0) + 7}l-7 13h14Z"
				fill="var(--heather)"
				style:cursor={still ? undefined : 'ew-resize'}
				use:drag={(px) => balance(length - at.atX(px))}
				><title>Slide the balance: another point</title></path
			>
			<path d="M{on(length / 2)} {at.y(0) - 12}v24" stroke="var(--quiet)" stroke-dasharray="3 3" />
			<text class="q halo" x={on(length / 2)} y={at.y(0) - 18} text-anchor="middle">centre</text>
			<text
				class="halo"
				x={on(arrow.balance_in)}
				y={at.y(0) + 33}
				text-anchor="middle"
				style:fill="var(--heather)"
				style:font-weight="600"
				><Label
					text={`balances at ${reference.text(arrow.balance_in, 'draw')}, ${reference.text(arrow.front_of_centre_pct, 'percent')} forward`}
				/></text
			>
			{#if !still}
				<circle
					cx={on(length)}
					cy={at.y(0)}
					r="9"
					fill="var(--heather)"
					fill-opacity="0.25"
					stroke="var(--heather)"
					stroke-width="1.5"
					style:cursor="ew-resize"
					use:drag={(px) =>
						bench().drag('arrow.shaft_length_in', Math.min(length - at.atX(px), most), EIGHTH_IN)}
					><title>Cut the shaft</title></circle
				>
			{/if}
			<Dimension
				x1={on(0)}
				y1={at.y(0) - 38}
				x2={on(length)}
				y2={at.y(0) - 38}
				label="shaft {reference.text(length, 'draw')}"
			/>
		{/if}
		{#if shot}
			{@const slim = narrow(width)}
			{@const chartRight = slim ? width : width * 0.62}
			{@const side = slim ? 0 : chartRight + 24}
			{@const top = slim ? height - 200 : 159}
			{@const speeds = speedOf(shot)}
			{@const field = {
				left: 44,
				right: chartRight - 44,
				top: 168,
				bottom: slim ? height - 250 : height - 44
			}}
			{@const low = Math.floor(speeds[speeds.length - 1]![1] / 20) * 20}
			{@const ceiling = reference.inShown(shot.ceiling_speed_fps, 'speed')}
			{@const at = plot({ x: [2, 18], y: [low, Math.ceil(ceiling / 20) * 20], ...field })}
			{@const residue = residueOf(shot)}
			{@const stays = plot({ x: [2, 18], y: [0, Math.ceil(residue[0]![1] / 20) * 20], ...field })}
			{@const g = shot.grains_per_pound}
			{@const v = reference.inShown(shot.speed_fps.value, 'speed')}
			{@const floor = shot.floor.floor_gpp}
			<Span {at} from={2} to={floor} tone="brick" />
			<Note
				x={at.left + 8}
				y={at.top + 34}
				anchor="start"
				tone="brick"
				text={`under the floor of ${reference.text(floor, 'gpp')}`}
			/>
			{#if keptShot}
				{@const was = reference.inShown(keptShot.speed_fps.value, 'speed')}
				<Curve {at} points={within(at, speedOf(keptShot))} tone="ghost" width={2} />
				<Spot {at} x={keptShot.grains_per_pound} y={was} of="own" tone="ghost" />
			{/if}
			<Curve {at} points={speeds} width={2} />
			<Curve at={stays} points={residue} tone="ochre" width={1.6} dash="6 3" />
			<Axes
				{at}
				xLabel="grains per pound"
				yLabel="speed, {reference.unit('speed').label}"
				xTicks={8}
			/>
			{#each stays.y.ticks(4) as tick (tick)}
				<text class="num" x={at.right + 8} y={stays.y(tick) + 4} style:fill="var(--ochre)"
					>{tick}</text
				>
			{/each}
			<text x={at.right + 34} y={at.top - 9} text-anchor="end" style:fill="var(--ochre)"
				>stays in the bow, %</text
			>
			{#if ceiling <= at.y.domain()[1]!}
				<path
					d="M{at.left} {at.y(ceiling)}H{at.right}"
					stroke="var(--brick)"
					stroke-dasharray="6 4"
				/>
				<Note
					x={at.right - 4}
					y={at.y(ceiling) + 15}
					anchor="end"
					tone="brick"
					text={`${reference.text(shot.ceiling_speed_fps, 'speed')}: dry fire, never faster`}
				/>
			{/if}
			<Mark {at} x={g} y={v} />
			<Spot {at} x={g} y={v} of="own" />
			{#if !still}
				<circle
					cx={at.x(g)}
					cy={at.y(v)}
					r="14"
					fill="transparent"
					style:cursor="ew-resize"
					use:drag={(px) => weigh(at.x.invert(px))}
					><title>Slide the arrow's weight: another shaft, as stiff</title></circle
				>
			{/if}
			<Note
				x={at.x(g) + (g > 10.5 ? -9 : 9)}
				y={at.y(v) + (g > 10.5 ? 18 : -9)}
				anchor={g > 10.5 ? 'end' : 'start'}
				strong
				text={`${reference.text(g, 'gpp')}, ${reference.valueText({ value: shot.speed_fps.value, plus_minus: shot.speed_fps.plus_minus, quantity: 'speed' })}`}
			/>

			{#if window_ && window_.low != null && window_.high != null && window_.spine_28in}
				{@const { low, high } = window_}
				{@const stiffest = Math.min(low, rig.arrow.static_spine) * 0.85}
				{@const weakest = Math.max(high, rig.arrow.static_spine) * 1.12}
				{@const s = ruler([stiffest, weakest], side + 4, width - 14)}
				{@const spine = rig.arrow.static_spine}
				<text
					x={side}
					y={top}
					style:font-family="var(--slab)"
					style:font-size="16px"
					style:font-weight="600">Spine window</text
				>
				<path d="M{s.range()[0]} {top + 81}H{s.range()[1]}" stroke="var(--quiet)" />
				<rect
					x={s(low)}
					y={top + 71}
					width={s(high) - s(low)}
					height="20"
					fill="var(--moss-wash)"
					stroke="var(--moss)"
				/>
				<Rule x={s} y={top + 81} ticks={4} from={10} words={30} line={false} />
				<path
					d="M{s(window_.spine_28in.value)} {top + 67}v28"
					stroke="var(--moss)"
					stroke-width="2"
				/>
				<path
					d="M{s(spine)} {top + 57}v30l-5 -8m5 8 5 -8"
					fill="none"
					stroke="var(--heather)"
					stroke-width="1.8"
				/>
				<text
					class="halo"
					x={Math.min(Math.max(s(spine), s.range()[0]! + 26), s.range()[1]! - 26)}
					y={top + 49}
					text-anchor="middle"
					style:fill="var(--heather)"
					style:font-weight="600">yours {spine.toFixed(0)}</text
				>
				<text class="q" x={s.range()[0]} y={top + 133}>stiffer</text>
				<text class="q" x={s.range()[1]} y={top + 133} text-anchor="end">weaker</text>
				<text class="q" x={s.range()[0]} y={top + 157}>sag by the 28-inch standard</text>
				{#if arrow}<text class="q" x={s.range()[0]} y={top + 176}
						>= {arrow.spine_26in_lbf.toFixed(0)}# by the 26-inch standard</text
					>{/if}
			{:else if window_}
				<text
					x={side}
					y={top}
					style:font-family="var(--slab)"
					style:font-size="16px"
					style:font-weight="600">No spine window</text
				>
				<foreignObject x={side} y={top + 8} width={width - side} height="150">
					<p class="outside">
						Outside what the model was fitted to:
						{window_.outside.map((reason) => reference.said(reason)).join('; ')}.
					</p>
				</foreignObject>
			{/if}
		{/if}
	{/snippet}
</Plate>

<style>
	.outside {
		color: var(--quiet);
		font-size: 12.5px;
		line-height: 1.4;
	}
</style>
