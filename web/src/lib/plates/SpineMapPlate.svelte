<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import type { SpineMap } from '$lib/bench/spineMap.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { plot, within, type Pair } from '$lib/charts/plot';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';

	/** Lines of one spine over length and point; the shaft, what it can be cut to, what is too light. */
	let { map }: { map: SpineMap } = $props();
	const bench = useBench();
	const now = $derived([
		bench().value('arrow.shaft_length_in') as number,
		bench().value('arrow.point_gr') as number
	] as const);
	const l = (v: number) => reference.inShown(v, 'draw');
	const g = (v: number) => reference.inShown(v, 'mass');
	const shown = (points: readonly (readonly number[])[]): Pair[] =>
		points.map((p) => [l(p[0]!), g(p[1]!)]);
	const spine = (v: number) => reference.text(v, 'spine', false);
</script>

<Plate
	label="Which spine leaves clean, over the shaft’s length and its point"
	height={360}
	least={240}
	heads={['Length', 'Point', 'Clean spine']}
	rows={map.rows.map(([length, point, s]) => [
		reference.text(length!, 'draw'),
		reference.text(point!, 'mass'),
		s == null ? 'none' : spine(s)
	])}
>
	{#snippet children(width, height)}
		{@const at = plot({
			x: [l(map.length_in[0]!), l(map.length_in[1]!)],
			y: [g(map.point_gr[0]!), g(map.point_gr[1]!)],
			left: 46,
			right: width - 14,
			top: 30,
			bottom: height - 44
		})}
		{@const region = (rings: readonly (readonly (readonly number[])[])[]) =>
			rings
				.map(
					(r) =>
						`M${shown(r)
							.map(([x, y]) => `${at.x(x)} ${at.y(y)}`)
							.join('L')}Z`
				)
				.join('')}
		{@const px = Math.min(Math.max(at.x(l(now[0])), at.left), at.right)}
		{@const py = Math.min(Math.max(at.y(g(now[1])), at.top), at.bottom)}
		<path d={region(map.window)} fill="var(--moss-wash)" fill-rule="evenodd" />
		<path d={region(map.flat)} fill="url(#wood)" opacity="0.35" fill-rule="evenodd" />
		<path d={region(map.none)} fill="var(--hair)" fill-rule="evenodd" />
		<path d={region(map.too_light)} fill="var(--brick-wash)" opacity="0.75" fill-rule="evenodd" />
		{#if px < at.right}<rect
				x={px}
				y={at.top}
				width={at.right - px}
				height={at.bottom - at.top}
				fill="var(--paper)"
				opacity="0.55"
			/>{/if}
		{#each map.lines as line, i (i)}
			{@const points = within(at, shown(line.points))}
			{#if points.length > 1}
				<Curve {at} {points} tone={line.own ? 'moss' : 'quiet'} width={line.own ? 2.6 : 1} />
				{@const [x, y] = points.reduce((a, b) => (b[0] > a[0] ? b : a))}
				{#if !line.own}<Note
						x={at.x(x) - 4}
						y={at.y(y) - 3}
						anchor="end"
						tone="quiet"
						text={spine(line.spine)}
					/>{/if}
			{/if}
		{/each}
		<path d="M{px} {at.top}V{at.bottom}" stroke="var(--heather)" stroke-dasharray="2 4" />
		{#if map.cut_to_in != null && map.cut_to_in < now[0] - 0.02}
			{@const cx = at.x(l(map.cut_to_in))}
			<path d="M{px - 7} {py}H{cx + 7}" stroke="var(--moss)" stroke-width="1.6" />
			<circle {cx} cy={py} r="5" fill="none" stroke="var(--moss)" stroke-width="1.8" />
		{/if}
		<circle cx={px} cy={py} r="5.5" fill="var(--heather)" />
		<Note
			x={px}
			y={py - 11}
			strong
			anchor={px > width * 0.7 ? 'end' : 'middle'}
			text={`this shaft, ${spine(map.acts)}`}
		/>
		{#if px < at.right - 60}<Note
				x={at.right - 6}
				y={at.top + 14}
				anchor="end"
				tone="quiet"
				text={narrow(width) ? 'longer' : 'longer than yours'}
			/>{/if}
		{#if map.none.length}<Note
				x={at.left + 8}
				y={at.bottom - (map.too_light.length ? 26 : 8)}
				anchor="start"
				tone="quiet"
				text="no match found"
			/>{/if}
		{#if map.too_light.length}<Note
				x={at.left + 8}
				y={at.bottom - 8}
				anchor="start"
				tone="brick"
				text={`under ${map.floor_gpp.toFixed(1)} gr/lb: too light`}
			/>{/if}
		<Axes
			{at}
			xLabel="length of the shaft, {reference.unit('draw').label}"
			yLabel="point, {reference.unit('mass').label}"
		/>
	{/snippet}
</Plate>
