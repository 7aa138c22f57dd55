<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import { area, line } from 'd3-shape';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from './Axes.svelte';
	import BowShape from './BowShape.svelte';
	import { fit } from './frame';
	import Label from './Label.svelte';
	import Plate from './Plate.svelte';

	/** Weight over draw: stored energy, the archer's draw, the onset of stack, readings, the end. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const ghost = $derived(bench().dirty ? bench().keptBench.force_draw : null);
	const rig = $derived(bench().bench.rig);
	type Pair = [number, number];

	function pairs(curve: { draw_in: number[]; force_lbf: number[] }): Pair[] {
		return curve.draw_in.map((d, i) => [
			reference.inShown(d, 'draw'),
			reference.inShown(curve.force_lbf[i]!, 'weight')
		]);
	}
	const points = $derived(drawn ? pairs(drawn.curve) : []);
	const heads = $derived([
		`Draw, ${reference.unit('draw').label}`,
		`Weight, ${reference.unit('weight').label}`
	]);
	const rows = $derived(
		drawn
			? drawn.curve.draw_in
					.map((d, i): string[] => [
						reference.text(d, 'draw', false),
						reference.text(drawn.curve.force_lbf[i]!, 'weight', false)
					])
					.filter((_, i) => i % 4 === 0)
			: []
	);
</script>

<Plate label="Force–draw curve with the energy stored at your draw" height={340} {heads} {rows}>
	{#snippet children(width, height)}
		{#if drawn}
			{@const left = 190}
			{@const at = fit(
				{ x0: -4, x1: 28, y0: -36, y1: 36 },
				{ left: 0, top: 10, width: left - 30, height: height - 40 },
				rig.archer.hand === 'left'
			)}
			<g opacity="0.4"><BowShape pose={drawn.drawing.brace} {at} riser={false} /></g>
			<BowShape pose={drawn.drawing.full_draw} {at} />

			{@const me = reference.inShown(drawn.true_draw_in.value, 'draw')}
			{@const w = reference.inShown(drawn.weight_at_draw_lbf.value, 'weight')}
			{@const sd = reference.inShown(drawn.true_draw_in.plus_minus, 'draw')}
			{@const top = Math.max(
				w * 1.45,
				...(ghost ? [reference.inShown(ghost.weight_at_draw_lbf.value, 'weight') * 1.2] : [])
			)}
			{@const first = points[0]![0]}
			{@const endX = Math.min(points[points.length - 1]![0], me + (me - first) * 0.32)}
			{@const x = scaleLinear()
				.domain([first, endX])
				.range([left + 40, width - 20])}
			{@const y = scaleLinear()
				.domain([0, top])
				.range([height - 44, 30])}
			{@const seen = points.filter(([d, f]) => d <= endX && f <= top * 1.02)}
			{@const stored = [...seen.filter(([d]) => d < me), [me, w] as Pair]}
			{@const curve = line<Pair>(
				(p) => x(p[0]),
				(p) => y(p[1])
			)}
			<rect
				x={x(Math.max(me - sd, first))}
				y={y.range()[1]}
				width={x(Math.min(me + sd, endX)) - x(Math.max(me - sd, first))}
				height={y.range()[0]! - y.range()[1]!}
				fill="var(--heather-wash)"
			/>
			<path
				d={area<Pair>(
					(p) => x(p[0]),
					y(0),
					(p) => y(p[1])
				)(stored)}
				fill="var(--moss-wash)"
			/>
			{#if ghost}
				<path
					d={curve(pairs(ghost.curve).filter(([d, f]) => d <= endX && f <= top))}
					fill="none"
					stroke="var(--ghost)"
					stroke-width="2"
				/>
			{/if}
			<path d={curve(seen)} fill="none" stroke="var(--ink)" stroke-width="2" />
			<Axes
				{x}
				{y}
				xLabel="draw, trade standard, {reference.unit('draw').label}"
				yLabel="weight, {reference.unit('weight').label}"
			/>
			<path
				d="M{x(me)} {y(0)}V{y(w)}H{x(first)}"
				fill="none"
				stroke="var(--heather)"
				stroke-dasharray="4 3"
			/>
			<circle cx={x(me)} cy={y(w)} r="5" fill="var(--heather)" />
			<text
				class="halo"
				x={x(me) - 10}
				y={y(w) - 10}
				text-anchor="end"
				style:fill="var(--heather)"
				style:font-weight="600"
				><Label
					text={`${reference.valueText({ value: drawn.weight_at_draw_lbf.value, plus_minus: drawn.weight_at_draw_lbf.plus_minus, quantity: 'weight' })} at ${reference.text(drawn.true_draw_in.value, 'draw')}`}
				/></text
			>
			<text
				class="halo"
				x={x(first + (me - first) * 0.62)}
				y={y(w * 0.26)}
				text-anchor="middle"
				style:fill="var(--moss)"
				><Label text={`stores ${reference.text(drawn.stored_energy_ftlb, 'energy')}`} /></text
			>
			{#if drawn.stack_onset_in != null && reference.inShown(drawn.stack_onset_in, 'draw') < endX}
				{@const s = reference.inShown(drawn.stack_onset_in, 'draw')}
				<path
					d="M{x(s)} {y(0)}V{y.range()[1]! + 14}"
					stroke="var(--brick)"
					stroke-dasharray="2 3"
				/>
				<text
					class="halo"
					x={x(s)}
					y={y.range()[1]! + 6}
					text-anchor="middle"
					style:fill="var(--brick)"
					><Label text={`stacks from ${reference.text(drawn.stack_onset_in, 'draw')}`} /></text
				>
			{/if}
			{#each rig.bow.measured ?? [] as [d, f], i (i)}
				{@const dx = reference.inShown(d!, 'draw')}
				{#if dx <= endX}<path
						d="M{x(dx) - 5} {y(reference.inShown(f!, 'weight'))}h10m-5 -5v10"
						stroke="var(--ink)"
						stroke-width="1.6"
					/>{/if}
			{/each}
			{#each bench().live as [d, f], i (i)}
				<circle
					cx={x(Math.min(reference.inShown(d, 'draw'), endX))}
					cy={y(Math.min(reference.inShown(f, 'weight'), top))}
					r="2.4"
					fill="var(--heather)"
				/>
			{/each}
		{/if}
	{/snippet}
</Plate>
