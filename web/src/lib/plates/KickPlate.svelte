<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import type { Passing } from '$lib/bench/passing.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot, type Pair, type Tone } from '$lib/charts/plot';
	import Plate from './Plate.svelte';

	/** How the arrow nock leans by the distance of the butt, as the archer sees it: left is up. */
	let { told }: { told: Passing } = $props();
	const bench = useBench();
	const left = $derived(bench().bench.reading?.plate_left ? 1 : -1);
	const far = $derived(told.distance_m.map((d) => reference.inShown(d, 'distance')));
	const pairs = (degrees: number[]): Pair[] => far.map((d, i) => [d, left * degrees[i]!]);
	const lines = $derived<{ name: string; points: Pair[]; tone: Tone; dash?: string }[]>([
		{ name: 'bare, stiffer', points: pairs(told.shots[0]!.nock_deg), tone: 'moss', dash: '7 4' },
		{ name: 'bare, weaker', points: pairs(told.shots[2]!.nock_deg), tone: 'ochre', dash: '2 4' },
		{ name: 'fletched', points: pairs(told.shots[1]!.fletched_deg), tone: 'ink' },
		{ name: 'bare, this shaft', points: pairs(told.shots[1]!.nock_deg), tone: 'heather' }
	]);
</script>

<Plate
	label="How the arrow nock leans by distance"
	height={250}
	least={160}
	heads={[
		`Distance (${reference.unit('distance').label})`,
		...lines.map((l) => `${l.name} (°, + left)`)
	]}
	rows={far.map((d, i) => [d.toFixed(1), ...lines.map((l) => l.points[i]![1].toFixed(1))])}
>
	{#snippet children(width, height)}
		{@const at = plot({
			x: extent(far),
			y: extent([...lines.flatMap((l) => l.points.map(([, a]) => a)), 0], 1),
			left: 40,
			right: width - 108,
			top: 22,
			bottom: height - 40,
			nice: ['y']
		})}
		{@const ends = lines
			.map((l) => ({ ...l, y: at.y(l.points.at(-1)![1]) }))
			.sort((a, b) => a.y - b.y)
			.reduce<{ name: string; tone: Tone; y: number }[]>((told, l) => {
				const y = Math.max(l.y, (told.at(-1)?.y ?? -99) + 15);
				return [...told, { name: l.name, tone: l.tone, y }];
			}, [])}
		<path d="M{at.left} {at.y(0)}H{at.right}" stroke="var(--quiet)" stroke-dasharray="5 4" />
		{#each lines as l (l.name)}<Curve {at} points={l.points} tone={l.tone} dash={l.dash} />{/each}
		{#each ends as l (l.name)}
			<Note x={at.right + 6} y={l.y + 4} anchor="start" tone={l.tone} text={l.name} />
		{/each}
		<Note x={at.left + 6} y={at.top + 8} anchor="start" tone="quiet" text="nock left ↑" />
		<Note x={at.left + 6} y={at.bottom - 8} anchor="start" tone="quiet" text="nock right ↓" />
		<Axes {at} xLabel="to the butt, {reference.unit('distance').label}" yLabel="°" />
	{/snippet}
</Plate>
