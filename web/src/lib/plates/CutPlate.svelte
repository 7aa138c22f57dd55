<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot } from '$lib/charts/plot';
	import Span from '$lib/charts/Span.svelte';
	import Plate from './Plate.svelte';

	/** The spine that suits over the shaft's length, this shaft, its reads, and where cutting ends. */
	const bench = useBench();
	const shaft = $derived(bench().bench.shaft ?? null);
	const plan = $derived(shaft?.plans.find((p) => p.tuned === 'length') ?? null);
	const acts = $derived(bench().bench.arrow?.acts_spine ?? null);
	const long = (inches: number): number => reference.inShown(inches, 'draw');
	const points = $derived(
		(shaft?.suits?.length_in ?? []).flatMap((l, i) => {
			const spine = shaft!.suits!.spine[i];
			return spine == null ? [] : [[long(l), spine] as const];
		})
	);
	const WORD = { weak: 'W', straight: '|', stiff: 'S' } as const;
	const BEYOND = 0.35;
</script>

{#if shaft && plan && acts !== null && points.length > 1}
	<Plate
		label="The spine that suits over the shaft's length, and this shaft"
		height={230}
		least={150}
		heads={['Shaft', 'Suits', 'Read']}
		rows={points
			.filter((_, i) => i % 4 === 0)
			.map(([l, s]) => [l.toFixed(2), s.toFixed(0), ''])
			.concat(shaft.reads.map((r) => [reference.text(r.at_in, 'draw'), '', r.read]))}
	>
		{#snippet children(width, height)}
			{@const now = long(plan.now_in)}
			{@const limit = long(plan.limit_in)}
			{@const at = plot({
				x: [
					long(Math.max(plan.now_in, ...shaft.reads.map((r) => r.at_in)) + BEYOND),
					long(plan.limit_in - BEYOND)
				],
				y: extent([...points.map(([, s]) => s), acts], 25),
				left: 44,
				right: width - 12,
				top: 22,
				bottom: height - 42,
				nice: ['y']
			})}
			<Span {at} from={limit} to={long(plan.limit_in - BEYOND)} tone="brick" />
			<Note
				x={at.x(limit) + 6}
				y={at.top + 14}
				anchor="start"
				tone="brick"
				text="too near your draw"
			/>
			<clipPath id="cut-field"
				><rect
					x={at.left}
					y={at.top}
					width={at.right - at.left}
					height={at.bottom - at.top}
				/></clipPath
			>
			<g clip-path="url(#cut-field)"><Curve {at} {points} /></g>
			<path
				d="M{at.left} {at.y(acts)}H{at.right}"
				stroke="var(--heather)"
				stroke-width="1.6"
				stroke-dasharray="6 4"
			/>
			<Note
				x={at.left + 8}
				y={at.y(acts) - 7}
				anchor="start"
				strong
				text={`acts like ${reference.text(acts, 'spine')}`}
			/>
			<Mark {at} x={now} />
			<Note
				x={at.x(now)}
				y={at.top - 7}
				text={`now ${reference.text(plan.now_in, 'draw')}`}
				strong
			/>
			{#if plan.model_in != null}
				<Mark {at} x={long(plan.model_in)} tone="moss" />
				<Note
					x={at.x(long(plan.model_in))}
					y={at.bottom - 8}
					tone="moss"
					text={`the model ends at ${reference.text(plan.model_in, 'draw')}`}
				/>
			{/if}
			{#each shaft.reads as read, i (i)}
				<text
					class="halo num"
					x={at.x(long(read.at_in))}
					y={at.y(acts) +
						18 +
						14 * shaft.reads.slice(0, i).filter((r) => r.at_in === read.at_in).length}
					text-anchor="middle"
					style:font-weight="700"
					style:fill="var(--{read.read === 'straight' ? 'moss' : 'ochre'})">{WORD[read.read]}</text
				>
			{/each}
			<Axes
				{at}
				xLabel="shaft, {reference.unit('draw').label}; W flew weak, | straight, S stiff"
				yLabel="spine that suits"
			/>
		{/snippet}
	</Plate>
{/if}
