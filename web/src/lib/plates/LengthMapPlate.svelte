<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { plot } from '$lib/charts/plot';
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
			{@const at = plot({
				x: [d(23), d(34)],
				y: [l(map.length_in[0]!), l(map.length_in[map.length_in.length - 1]!)],
				left: 44,
				right: width - 20,
				top: 20,
				bottom: height - 44
			})}
			{@const held = (v: number) => Math.min(Math.max(at.x(v), at.left), at.right)}
			{@const line = (of: Row[]) => of.map(([a, b]) => `${held(a)} ${at.y(b)}`).join('L')}
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
				{at}
				xLabel="draw, {reference.unit('draw').label}"
				yLabel="bow length, {reference.unit('bow_length').label}"
				xTicks={11}
			/>
			{@const middle = Math.floor(map.length_in.length / 2)}
			{@const level = at.y(l(map.length_in[middle]!))}
			<Note
				x={(held(under[middle]![0]) + held(good[middle]![0])) / 2}
				y={level}
				tone="moss"
				text="comfortable"
			/>
			<Note
				x={held(over[1]![0]) + 12}
				y={at.y(l(map.length_in[1]!))}
				anchor="start"
				tone="brick"
				text="overdrawn"
			/>
			<Note x={at.left + 10} y={at.top + 14} anchor="start" tone="quiet" text="hardly worked" />
			<Note
				x={held(stack[middle]![0]) + 5}
				y={level + 18}
				anchor="start"
				tone="ochre"
				text="stacks"
			/>
			{#if drawn && rig.bow.length_in}
				{@const px = held(d(drawn.value))}
				{@const [lowest, highest] = at.y.domain() as [number, number]}
				{@const py = at.y(Math.min(Math.max(l(rig.bow.length_in), lowest), highest))}
				<path
					d="M{held(d(drawn.value - drawn.plus_minus))} {py}H{held(
						d(drawn.value + drawn.plus_minus)
					)}"
					stroke="var(--heather)"
					stroke-width="3"
					opacity="0.5"
				/>
				<circle cx={px} cy={py} r="5.5" fill="var(--heather)" />
				<Note
					x={px}
					y={py - 11}
					strong
					text={`you, ${reference.text(drawn.value, 'draw')} on ${reference.text(rig.bow.length_in, 'bow_length')}`}
				/>
			{/if}
		{/if}
	{/snippet}
</Plate>
