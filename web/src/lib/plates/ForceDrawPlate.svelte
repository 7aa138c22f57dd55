<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { plot, within, type Pair } from '$lib/charts/plot';
	import Span from '$lib/charts/Span.svelte';
	import Spot from '$lib/charts/Spot.svelte';
	import BowShape from './BowShape.svelte';
	import { fit, narrow } from './frame';
	import Plate from './Plate.svelte';

	/** Weight over draw: stored energy, the archer's draw, the onset of stack, readings, the end. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const ghost = $derived(bench().dirty ? bench().keptBench.force_draw : null);
	const rig = $derived(bench().bench.rig);

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
			{@const slim = narrow(width)}
			{@const left = slim ? 0 : 190}
			{@const at = fit(
				{ x0: -4, x1: 28, y0: -36, y1: 36 },
				{ left: 0, top: 10, width: left - 30, height: height - 40 },
				rig.archer.hand === 'left'
			)}
			{#if !slim}
				<g opacity="0.4"><BowShape pose={drawn.drawing.brace} {at} riser={false} /></g>
				<BowShape pose={drawn.drawing.full_draw} {at} />
			{/if}

			{@const me = reference.inShown(drawn.true_draw_in.value, 'draw')}
			{@const w = reference.inShown(drawn.weight_at_draw_lbf.value, 'weight')}
			{@const sd = reference.inShown(drawn.true_draw_in.plus_minus, 'draw')}
			{@const top = Math.max(
				w * 1.45,
				...(ghost ? [reference.inShown(ghost.weight_at_draw_lbf.value, 'weight') * 1.2] : [])
			)}
			{@const first = points[0]![0]}
			{@const endX = Math.min(points[points.length - 1]![0], me + (me - first) * 0.32)}
			{@const on = plot({
				x: [first, endX],
				y: [0, top],
				left: left + 40,
				right: width - 20,
				top: 30,
				bottom: height - 44
			})}
			{@const seen = within(on, points)}
			<Span at={on} from={me - sd} to={me + sd} />
			<Curve at={on} points={[...seen.filter(([d]) => d < me), [me, w]]} filled="moss" width={0} />
			{#if ghost}<Curve
					at={on}
					points={within(on, pairs(ghost.curve))}
					tone="ghost"
					width={2}
				/>{/if}
			<Curve at={on} points={seen} width={2} />
			<Axes
				at={on}
				xLabel="draw, trade standard, {reference.unit('draw').label}"
				yLabel="weight, {reference.unit('weight').label}"
			/>
			<Mark at={on} x={me} y={w} across />
			<Spot at={on} x={me} y={w} of="own" />
			<Note
				x={on.x(me) - 10}
				y={on.y(w) - 10}
				anchor="end"
				strong
				text={`${reference.valueText({ value: drawn.weight_at_draw_lbf.value, plus_minus: drawn.weight_at_draw_lbf.plus_minus, quantity: 'weight' })} at ${reference.text(drawn.true_draw_in.value, 'draw')}`}
			/>
			<Note
				x={on.x(first + (me - first) * 0.62)}
				y={on.y(w * 0.26)}
				tone="moss"
				text={`stores ${reference.text(drawn.stored_energy_ftlb, 'energy')}`}
			/>
			{#if drawn.stack_onset_in != null && reference.inShown(drawn.stack_onset_in, 'draw') < endX}
				{@const s = reference.inShown(drawn.stack_onset_in, 'draw')}
				<Mark at={on} x={s} tone="brick" dash="2 3" />
				<Note
					x={Math.min(on.x(s), width - 60)}
					y={on.top + 6}
					tone="brick"
					text={`stacks from ${reference.text(drawn.stack_onset_in, 'draw')}`}
				/>
			{/if}
			{#each rig.bow.measured ?? [] as [d, f], i (i)}
				{@const dx = reference.inShown(d!, 'draw')}
				{#if dx <= endX}
					<Spot at={on} x={dx} y={reference.inShown(f!, 'weight')} of="measured" tone="ink" />
				{/if}
			{/each}
			{#each bench().live as [d, f], i (i)}
				<Spot
					at={on}
					x={Math.min(reference.inShown(d, 'draw'), endX)}
					y={Math.min(reference.inShown(f, 'weight'), top)}
					of="own"
					size={2.4}
				/>
			{/each}
		{/if}
	{/snippet}
</Plate>
