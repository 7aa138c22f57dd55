<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import BowShape from './BowShape.svelte';
	import Dimension from './Dimension.svelte';
	import { drag } from './drag';
	import { fit, narrow, path, type Frame, type Point } from './frame';
	import Label from '$lib/charts/Label.svelte';
	import Note from '$lib/charts/Note.svelte';
	import Plate from './Plate.svelte';

	/** The braced bow's middle: the string, its range, and what the height is measured to. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const brace = $derived(bench().bench.brace);
	const ghost = $derived(bench().dirty ? bench().keptBench.force_draw : null);
	const rig = $derived(bench().bench.rig);
	const b = (v: number) => reference.text(v, 'brace');
	const offset = $derived(brace ? brace.brace_in - brace.to_pivot_in : 0);
	const names = { grip: 'deepest part of the grip', back: 'back of the bow', plunger: 'plunger' };

	const set = (at: Frame) => (x: number) =>
		bench().drag('bow.brace_height_in', at.atX(x) + offset, 1 / 16);
</script>

<Plate
	label="Brace height: the string, the usual range and the reference"
	height={(width) => (narrow(width) ? 330 : 340)}
	heads={['Brace height', 'Value']}
	rows={brace
		? [
				...Object.entries(brace.by_reference_in).map(([id, value]) => [
					`to the ${names[id as keyof typeof names]}`,
					value == null ? 'say where it lies' : b(value)
				]),
				['lowest', b(brace.low_in)],
				['highest', b(brace.high_in)]
			]
		: []}
>
	{#snippet children(width, height)}
		{#if drawn && brace}
			{@const slim = narrow(width)}
			{@const deep = slim ? height - 62 : height}
			{@const wide = (width / deep) * 19}
			{@const middle = slim ? 5 : 8.5}
			{@const at = fit(
				{ x0: middle - wide / 2, x1: middle + wide / 2, y0: -10, y1: 9 },
				{ left: 0, top: 0, width, height: deep },
				rig.archer.hand === 'left'
			)}
			{@const own = `${b(brace.brace_in)} to the ${names[rig.bow.brace_reference ?? 'grip']}`}
			{@const whose = brace.range_from === 'maker' ? 'by the maker' : 'by practice'}
			{@const x = brace.to_pivot_in}
			{@const a = at.x(brace.low_in - offset)}
			{@const z = at.x(brace.high_in - offset)}
			<clipPath id="brace-clip"><rect x="0" y="0" {width} height={deep} /></clipPath>
			<rect
				x={Math.min(a, z)}
				y={at.y(8.2)}
				width={Math.abs(z - a)}
				height={at.y(-7) - at.y(8.2)}
				fill="var(--moss-wash)"
			/>
			<g clip-path="url(#brace-clip)">
				{#if ghost}<path
						d={path(ghost.drawing.brace.string as Point[], at)}
						stroke="var(--ghost)"
						stroke-width="2"
						fill="none"
					/>{/if}
				<BowShape pose={drawn.drawing.brace} {at} string="accent" />
			</g>
			<path
				d="M{at.x(-offset)} {at.y(-1.7)}V{at.y(-8.6)}"
				stroke="var(--line)"
				stroke-dasharray="3 3"
			/>
			<path d="M{at.x(x)} {at.y(-7)}V{at.y(-8.6)}" stroke="var(--line)" stroke-dasharray="3 3" />
			<Dimension
				accent
				x1={at.x(-offset)}
				y1={at.y(-8.2)}
				x2={at.x(x)}
				y2={at.y(-8.2)}
				place={slim ? 'middle' : 'end'}
				label={slim ? b(brace.brace_in) : own}
			/>
			<circle
				cx={at.x(x)}
				cy={at.y(0)}
				r="11"
				fill="var(--heather-wash)"
				stroke="var(--heather)"
				style:cursor="ew-resize"
				use:drag={set(at)}
			/>
			{#if slim}
				<Note x={0} y={deep + 16} anchor="start" strong text={own} />
				<Note
					x={0}
					y={deep + 36}
					anchor="start"
					tone="moss"
					text={`${b(brace.low_in)} lowest, ${b(brace.high_in)} highest, ${whose}`}
				/>
				<Note
					x={0}
					y={deep + 56}
					anchor="start"
					tone="quiet"
					text="higher: often quieter; lower: a touch faster"
				/>
			{:else}
				<text
					class="halo"
					x={at.x(brace.low_in - offset) - at.way * 6}
					y={at.y(7.4)}
					text-anchor={at.way > 0 ? 'end' : 'start'}
					style:fill="var(--moss)"><Label text={`${b(brace.low_in)} lowest`} /></text
				>
				<text
					class="halo"
					x={at.x(brace.high_in - offset) + at.way * 6}
					y={at.y(7.4)}
					text-anchor={at.way > 0 ? 'start' : 'end'}
					style:fill="var(--moss)"><Label text={`${b(brace.high_in)} highest, ${whose}`} /></text
				>
				{@const side = at.x(brace.high_in - offset) + at.way * 14}
				<text x={side} y={at.y(1.6)} text-anchor={at.way > 0 ? 'start' : 'end'} class="q"
					>higher: a touch slower, often quieter</text
				>
				<text x={side} y={at.y(-0.4)} text-anchor={at.way > 0 ? 'start' : 'end'} class="q"
					>lower: a touch faster, more slap</text
				>
			{/if}
		{/if}
	{/snippet}
</Plate>
