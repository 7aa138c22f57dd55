<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from './Axes.svelte';
	import Label from './Label.svelte';
	import Plate from './Plate.svelte';

	/** Draw over bow length: comfortable, stacking, overdrawn and under-used, and where you stand. */
	const bench = useBench();
	const map = $derived(bench().bench.bow_length?.map);
	const rig = $derived(bench().bench.rig);
	const drawn = $derived(bench().bench.force_draw?.true_draw_in);
	type Row = [draw: number, length: number];

	const d = (v: number) => reference.inShown(v, 'draw');
	const l = (v: number) => reference.inShown(v, 'bow_length');
	const border = (of: number[]): Row[] => of.map((v, i) => [d(v), l(map!.length_in[i]!)]);
	const rows = $derived(
		(map?.length_in ?? []).map((length, i) => [
			reference.text(length, 'bow_length'),
			reference.text(map!.under_used_in[i]!, 'draw'),
			reference.text(map!.comfortable_to_in[i]!, 'draw'),
			reference.text(map!.stacks_from_in[i]!, 'draw'),
			reference.text(map!.overdrawn_from_in[i]!, 'draw')
		])
	);
</script>

<Plate
	label="Draw over bow length, in regions"
	height={300}
	heads={['Length', 'Under-used below', 'Comfortable to', 'Stacks from', 'Overdrawn from']}
	{rows}
>
	{#snippet children(width, height)}
		{#if map && map.length_in.length > 1}
			{@const x = scaleLinear()
				.domain([d(23), d(34)])
				.range([44, width - 20])}
			{@const y = scaleLinear()
				.domain([l(map.length_in[0]!), l(map.length_in[map.length_in.length - 1]!)])
				.range([height - 44, 20])}
			{@const held = (v: number) => Math.min(Math.max(x(v), x.range()[0]!), x.range()[1]!)}
			{@const line = (of: Row[]) => of.map(([a, b]) => `${held(a)} ${y(b)}`).join('L')}
			{@const left = border(map.length_in.map(() => 0))}
			{@const right = border(map.length_in.map(() => 99))}
			{@const band = (a: Row[], b: Row[]) => `M${line(a)}L${line([...b].reverse())}Z`}
			{@const under = border(map.under_used_in)}
			{@const good = border(map.comfortable_to_in)}
			{@const stack = border(map.stacks_from_in)}
			{@const over = border(map.overdrawn_from_in)}
			<path d={band(under, good)} fill="var(--moss-wash)" />
			<path d={band(over, right)} fill="var(--brick-wash)" />
			<path d={band(left, under)} fill="url(#wood)" opacity="0.45" />
			<path d="M{line(under)}" fill="none" stroke="var(--quiet)" stroke-dasharray="5 3" />
			<path d="M{line(good)}" fill="none" stroke="var(--moss)" stroke-width="1.6" />
			<path d="M{line(stack)}" fill="none" stroke="var(--ochre)" stroke-width="1.6" />
			<path d="M{line(over)}" fill="none" stroke="var(--brick)" stroke-width="1.6" />
			<Axes
				{x}
				{y}
				xLabel="draw, {reference.unit('draw').label}"
				yLabel="bow length, {reference.unit('bow_length').label}"
				xTicks={11}
			/>
			{@const middle = Math.floor(map.length_in.length / 2)}
			{@const at = y(l(map.length_in[middle]!))}
			<text
				class="halo"
				x={(held(under[middle]![0]) + held(good[middle]![0])) / 2}
				y={at}
				text-anchor="middle"
				style:fill="var(--moss)">comfortable</text
			>
			<text
				class="halo"
				x={held(over[1]![0]) + 12}
				y={y(l(map.length_in[1]!))}
				style:fill="var(--brick)">overdrawn</text
			>
			<text class="halo q" x={x.range()[0]! + 10} y={y.range()[1]! + 14}>hardly worked</text>
			<text class="halo" x={held(stack[middle]![0]) + 5} y={at + 18} style:fill="var(--ochre)"
				>stacks</text
			>
			{#if drawn && rig.bow.length_in}
				{@const px = held(d(drawn.value))}
				{@const py = y(Math.min(Math.max(l(rig.bow.length_in), y.domain()[0]!), y.domain()[1]!))}
				<path
					d="M{held(d(drawn.value - drawn.plus_minus))} {py}H{held(
						d(drawn.value + drawn.plus_minus)
					)}"
					stroke="var(--heather)"
					stroke-width="3"
					opacity="0.5"
				/>
				<circle cx={px} cy={py} r="5.5" fill="var(--heather)" />
				<text
					class="halo"
					x={px}
					y={py - 11}
					text-anchor="middle"
					style:fill="var(--heather)"
					style:font-weight="600"
				>
					<Label
						text={`you, ${reference.text(drawn.value, 'draw')} on ${reference.text(rig.bow.length_in, 'bow_length')}`}
					/>
				</text>
			{/if}
		{/if}
	{/snippet}
</Plate>
