<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { drag } from './drag';
	import { narrow } from './frame';
	import Dimension from './Dimension.svelte';
	import Plate from './Plate.svelte';

	/** The braced bow with an arrow on: from behind, and from above with its width drawn wider. */
	const bench = useBench();
	const at = $derived(bench().bench.centre_shot);
	const kept = $derived(bench().dirty ? bench().keptBench.centre_shot : null);
	const rig = $derived(bench().bench.rig);
	const radius = $derived((rig.arrow.diameter_mm ?? 6) / 2);
	const plunger = $derived(rig.bow.side_plate === 'plunger');
	/** Which way is outward on paper: the side on which the arrow lies. */
	const way = $derived(bench().bench.arrow_left ? -1 : 1);
	const small = (mm: number): string => reference.text(mm, 'small');
	const LEAST = 0.25;
	const MOST_WIDER = 9; // times wider than long, from above
	const POINT = 12; // pixels of its taper
	const STUB = 2; // mm of a plunger whose length nobody gave
	const said = $derived(
		at
			? at.gap_mm < 0
				? `the string hides ${small(-at.gap_mm)}`
				: `${small(at.gap_mm)} outside the string`
			: ''
	);

	/** The plate moves so that the point stands where it was dragged to. */
	function put(pointMm: number): void {
		if (!at) return;
		const offset = pointMm / at.per_mm - radius;
		bench().drag('bow.centre_cut_mm', (rig.bow.side_plate_mm ?? 0) - offset, LEAST);
	}
</script>

<Plate
	label="Where the arrow's point stands beside the string, from behind and from above"
	height={(width) => (narrow(width) ? 430 : 330)}
	heads={['Place', 'Outward from the string']}
	rows={at
		? [
				['middle of the shaft at the plate', small(at.axis_mm)],
				['middle of the point, braced', small(at.point_mm)],
				['middle of the point, at full draw', small(at.full_mm)],
				['gap between string and point', small(at.gap_mm)]
			]
		: []}
>
	{#snippet children(width, height)}
		{#if at}
			{@const slim = narrow(width)}
			{@const split = slim ? width : width * 0.44}
			{@const deep = slim ? 210 : height - 22}
			{@const reach = Math.max(14, Math.abs(at.point_mm) + radius * 2 + 4)}
			{@const scale = Math.min(split / (reach * 1.55), deep / 26)}
			{@const x0 = way < 0 ? split - reach * 0.42 * scale : reach * 0.42 * scale}
			{@const cy = deep * 0.44}
			{@const x = (mm: number) => x0 + way * mm * scale}
			{@const plate = at.axis_mm - radius}
			{@const out = rig.bow.side_plate_mm || (plunger ? STUB : 0)}
			<!-- From behind. -->
			<clipPath id="behind-clip"><rect x="0" y="0" width={split} height={deep} /></clipPath>
			<g clip-path="url(#behind-clip)">
				<rect
					x={Math.min(x(plate - out), x(plate - 16))}
					y={cy - 9 * scale}
					width={(16 - out) * scale}
					height={18 * scale}
					fill="url(#wood)"
					stroke="var(--quiet)"
				/>
				{#if out}
					<rect
						x={Math.min(x(plate), x(plate - out))}
						y={cy - (plunger ? 2 : 9) * scale}
						width={out * scale}
						height={(plunger ? 4 : 18) * scale}
						fill="var(--raised)"
						stroke="var(--ink)"
					/>
				{/if}
				{#if plunger}
					<rect
						x={Math.min(x(at.string_mm + at.low_mm), x(at.string_mm + at.high_mm))}
						y={8}
						width={Math.max((at.high_mm - at.low_mm) * scale, 2)}
						height={deep - 8}
						fill="var(--moss-wash)"
					/>
				{/if}
				<rect
					x={Math.min(x(-at.string_mm), x(at.string_mm))}
					y="0"
					width={2 * at.string_mm * scale}
					height={deep}
					fill="var(--ink)"
					opacity="0.8"
				/>
				<path
					d="M{x(0)} {cy - 2}L{x(at.point_mm)} {cy - radius * scale}V{cy + radius * scale}L{x(
						0
					)} {cy + 2}Z"
					fill="var(--wood)"
					stroke="var(--quiet)"
				/>
				{#if kept && Math.abs(kept.point_mm - at.point_mm) > 0.05}
					<circle
						cx={x(kept.point_mm)}
						{cy}
						r={radius * scale}
						fill="none"
						stroke="var(--ghost)"
						stroke-width="2"
					/>
				{/if}
			</g>
			<circle
				cx={x(at.point_mm)}
				{cy}
				r={Math.max(radius * scale, 7)}
				fill="var(--heather)"
				stroke="var(--ink)"
				style:cursor="ew-resize"
				use:drag={(px) => put((px - x0) / scale / way)}
			/>
			{#if Math.abs(at.gap_mm) * scale > 9}
				<Dimension
					accent
					x1={x(at.string_mm)}
					y1={cy + Math.max(radius * scale, 7) + 20}
					x2={x(at.string_mm + at.gap_mm)}
					y2={cy + Math.max(radius * scale, 7) + 20}
					label={small(Math.abs(at.gap_mm))}
					below
				/>
			{/if}
			<text class="q" x="0" y={deep + 14}>from behind, braced</text>
			{#if slim}<Note x={width} y={deep + 14} anchor="end" strong text={said} />{/if}
			<!-- From above: along the arrow to one scale, across it wider. -->
			{@const left = slim ? 0 : split + 34}
			{@const top = slim ? deep + 34 : 0}
			{@const long = width - left - 6}
			{@const tall = slim ? height - top - 20 : deep}
			{@const total = Math.max(rig.arrow.shaft_length_in! * 25.4, at.stroke_mm)}
			{@const along = long / (total + 30)}
			{@const beyond = 5}
			{@const high = Math.max(at.point_mm, 0) + radius + 2}
			{@const low = Math.max(-plate + beyond, -at.point_mm + radius) + 2}
			{@const across = Math.min((tall - 22) / (high + low), along * MOST_WIDER)}
			{@const mid = top + (tall - 16 + (way < 0 ? high - low : low - high) * across) / 2}
			{@const ax = (mm: number) => left + 8 + mm * along}
			{@const ay = (mm: number) => mid + way * mm * across}
			{@const end = ay((at.axis_mm * total) / at.brace_mm)}
			<path d="M{left} {mid}H{left + long}" stroke="var(--quiet)" stroke-dasharray="2 4" />
			<rect
				x={ax(at.brace_mm) - 5}
				y={Math.min(ay(plate), ay(plate - beyond))}
				width="10"
				height={beyond * across}
				fill="url(#wood)"
				stroke="var(--quiet)"
			/>
			<path
				d="M{ax(0)} {mid - radius * across}L{ax(total) - POINT} {end - radius * across}L{ax(
					total
				)} {end}L{ax(total) - POINT} {end + radius * across}L{ax(0)} {mid + radius * across}Z"
				fill="var(--wood)"
				stroke="var(--ink)"
			/>
			<path
				d="M{ax(0)} {mid}L{ax(total)} {ay((at.axis_mm * total) / at.stroke_mm)}"
				stroke="var(--heather)"
				stroke-dasharray="5 4"
			/>
			<circle cx={ax(0)} cy={mid} r="4" fill="var(--ink)" />
			<text class="q halo" x={ax(at.brace_mm) + 10} y={ay(plate - beyond * 0.6) + 4}>plate</text>
			<text class="q halo" x={left + long} y={mid + (way < 0 ? 15 : -7)} text-anchor="end"
				>string's plane</text
			>
			<text class="q" x={left} y={top + tall + 14}
				>from above, {Math.round(across / along)} times wider than long; dashed at full draw</text
			>
		{/if}
	{/snippet}
</Plate>
