<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import type { Passing } from '$lib/bench/passing.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot } from '$lib/charts/plot';
	import Span from '$lib/charts/Span.svelte';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';

	/** How clean bare shafts leave over their spine: the window, the match, and the false weak. */
	let { told }: { told: Passing } = $props();
	const bench = useBench();
	const curve = $derived(told.curve!);
	const acts = $derived(bench().bench.arrow?.acts_spine ?? told.shots[1]!.spine);
	const points = $derived(curve.spine.map((s, i) => [s, curve.clean_deg[i]!] as const));
	const through = $derived(
		(curve.match == null ? points : [...points, [curve.match, 0] as const]).toSorted(
			(a, b) => a[0] - b[0]
		)
	);
	const n = (v: number) => reference.text(v, 'spine', false);
</script>

<Plate
	label="How clean bare shafts leave, by their spine"
	height={270}
	least={180}
	heads={['Spine', 'Leaves, ° stiff (+) or weak (−)']}
	rows={points.map(([s, j]) => [n(s), j.toFixed(1)])}
>
	{#snippet children(width, height)}
		{@const at = plot({
			x: [Math.min(curve.spine[0]!, acts * 0.95), Math.max(curve.spine.at(-1)!, acts * 1.05)],
			y: extent([...curve.clean_deg, 0], 3),
			left: 40,
			right: width - 10,
			top: 30,
			bottom: height - 40,
			nice: ['y']
		})}
		{#if told.low != null && told.high != null}<Span
				{at}
				from={told.low}
				to={told.high}
				tone="moss"
			/>{/if}
		{#if curve.false_below != null}
			<Span {at} from={at.x.domain()[0]!} to={curve.false_below} tone="ochre" />
			<Note
				x={at.left + 6}
				y={at.bottom - 8}
				anchor="start"
				tone="ochre"
				text={narrow(width) ? 'false weak' : 'so stiff that it bounces and looks weak'}
			/>
		{/if}
		<path d="M{at.left} {at.y(0)}H{at.right}" stroke="var(--quiet)" stroke-dasharray="5 4" />
		<Curve {at} points={through} smooth />
		{#if curve.match != null}
			<circle cx={at.x(curve.match)} cy={at.y(0)} r="5" fill="var(--moss)" />
			<Note
				x={at.x(curve.match) + 8}
				y={at.y(0) - 10}
				anchor="start"
				tone="moss"
				strong
				text={`clean at ${n(curve.match)}`}
			/>
		{/if}
		<Mark {at} x={acts} />
		<Note x={at.x(acts)} y={at.top - 6} strong text={`this shaft ${n(acts)}`} />
		<Note x={at.right - 4} y={at.top + 14} anchor="end" tone="quiet" text="reads stiff ↑" />
		<Note x={at.right - 4} y={at.bottom - 8} anchor="end" tone="quiet" text="reads weak ↓" />
		<Axes {at} xLabel="spine of the shaft; weaker →" yLabel="°" />
	{/snippet}
</Plate>
