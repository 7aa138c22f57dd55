<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ArrowShape from './ArrowShape.svelte';
	import BowShape from './BowShape.svelte';
	import Dimension from './Dimension.svelte';
	import { drag } from './drag';
	import { fit, narrow, type Frame } from './frame';
	import Plate from './Plate.svelte';

	/** The middle of the bow at full draw: the arrow, and what each convention measures to. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const ghost = $derived(bench().dirty ? bench().keptBench.force_draw : null);
	const rig = $derived(bench().bench.rig);
	const draw = $derived(rig.archer.draw_length_in);
	const thumb = $derived(rig.archer.release === 'thumb');
	const lines = $derived(bench().bench.draw_lines);
	const nock = $derived(lines.nock_x_in);
	const back = $derived(lines.back_x_in);
	const trade = $derived(lines.trade_x_in);
	const in_ = (value: number) => reference.text(value, 'draw');

	const pull = (at: Frame) => (x: number) =>
		bench().drag('archer.draw_length_in', at.atX(x) - trade, 0.125);
</script>

<Plate
	label="The bow at full draw with your draw measured by three conventions"
	height={(width) => (narrow(width) ? 300 : 350)}
	heads={['Convention', 'Draw']}
	rows={[
		[`trade standard (pivot + ${in_(-trade)})`, in_(draw)],
		['to the pivot', in_(lines.to_pivot_in)],
		['to the back of the bow', in_(lines.to_back_in)]
	]}
>
	{#snippet children(width, height)}
		{@const low = narrow(width) ? 3 : 0}
		{@const at = fit(
			{ x0: -5.5, x1: Math.max(30, nock + 2), y0: -10.2 - low, y1: 9 },
			{ left: 0, top: 0, width, height },
			rig.archer.hand === 'left'
		)}
		{#if drawn}
			<clipPath id="draw-clip"><rect x="0" y="0" {width} height={at.y(-7.2)} /></clipPath>
			<g clip-path="url(#draw-clip)">
				{#if ghost}<BowShape pose={ghost.drawing.full_draw} {at} ghost />{/if}
				<BowShape pose={drawn.drawing.full_draw} {at} />
			</g>
			<ArrowShape
				{at}
				{nock}
				height={thumb ? 0.6 : 0}
				lengthIn={rig.arrow.shaft_length_in!}
				diameterMm={rig.arrow.diameter_mm!}
				fletchings={rig.arrow.fletching_count}
			/>
			<path
				d="M{at.x(0)} {at.y(1.4)}V{at.y(-9.6 - low)}"
				stroke="var(--line)"
				stroke-dasharray="3 3"
			/>
			<path
				d="M{at.x(back)} {at.y(1.4)}V{at.y(-7.6)}"
				stroke="var(--line)"
				stroke-dasharray="3 3"
			/>
			<path
				d="M{at.x(nock)} {at.y(-0.4)}V{at.y(-9.6 - low)}"
				stroke="var(--line)"
				stroke-dasharray="3 3"
			/>
			<Dimension
				x1={at.x(back)}
				y1={at.y(-7.6)}
				x2={at.x(nock)}
				y2={at.y(-7.6)}
				label="to the back {in_(lines.to_back_in)}"
			/>
			<Dimension
				x1={at.x(0)}
				y1={at.y(-9.2 - low)}
				x2={at.x(nock)}
				y2={at.y(-9.2 - low)}
				label="to the pivot {in_(nock)}"
			/>
			<Dimension
				accent
				x1={at.x(trade)}
				y1={at.y(7.6)}
				x2={at.x(nock)}
				y2={at.y(7.6)}
				label="trade standard {in_(draw)}"
			/>
			<path
				d="M{at.x(trade)} {at.y(7.9)}V{at.y(0.4)}"
				stroke="var(--heather)"
				stroke-dasharray="3 3"
				opacity="0.6"
			/>
			<path
				d="M{at.x(nock)} {at.y(7.9)}V{at.y(0.5)}"
				stroke="var(--heather)"
				stroke-dasharray="3 3"
				opacity="0.6"
			/>
			{#if thumb}
				{@const true_ = drawn.drawing.full_draw.arrow_nock[0]!}
				<Dimension
					x1={at.x(nock)}
					y1={at.y(3.4)}
					x2={at.x(true_)}
					y2={at.y(3.4)}
					place="start"
					label="string {in_(true_ - nock)} behind the mark"
				/>
			{/if}
			<circle
				cx={at.x(drawn.drawing.full_draw.arrow_nock[0]!)}
				cy={at.y(0)}
				r="11"
				fill="var(--heather-wash)"
				stroke="var(--heather)"
				style:cursor="ew-resize"
				use:drag={pull(at)}
			/>
		{/if}
	{/snippet}
</Plate>
