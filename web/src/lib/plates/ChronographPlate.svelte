<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Band from '$lib/charts/Band.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot } from '$lib/charts/plot';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** Speed over arrow weight: every shot, the curve through them with its band, this arrow. */
	const bench = useBench();
	const told = $derived(bench().bench.chronograph);
	const mass = $derived(bench().bench.arrow?.mass_gr ?? null);
	const m = (gr: number): number => reference.inShown(gr, 'mass');
	const v = (fps: number): number => reference.inShown(fps, 'speed');
	const shots = $derived(
		(told?.seen ?? []).flatMap((s) =>
			s.speeds_fps.map((speed, i) => ({
				at: m(s.mass_gr),
				speed: v(speed),
				out: s.left_out.includes(i)
			}))
		)
	);
	const curve = $derived(
		(told?.mass_gr ?? []).map((gr, i) => ({
			at: m(gr),
			speed: v(told!.speed_fps[i]!),
			sd: v(told!.sd_fps[i]!)
		}))
	);
</script>

<Plate
	label="Speed over arrow weight, as the chronograph showed it"
	height={told ? 260 : 70}
	heads={['Arrow', 'Speeds']}
	rows={(told?.seen ?? []).map((s) => [
		reference.text(s.mass_gr, 'mass'),
		s.speeds_fps
			.map((x, i) => reference.text(x, 'speed') + (s.left_out.includes(i) ? ' (left out)' : ''))
			.join(', ')
	])}
>
	{#snippet children(width, height)}
		{#if told}
			{@const at = plot({
				x: extent(curve.map((c) => c.at)),
				y: extent([
					...curve.flatMap((c) => [c.speed - c.sd, c.speed + c.sd]),
					...shots.map((s) => s.speed)
				]),
				left: 52,
				right: width - 18,
				top: 22,
				bottom: height - 44,
				nice: ['y']
			})}
			<Band {at} rows={curve.map((c) => [c.at, c.speed - c.sd, c.speed + c.sd])} tone="moss" />
			<Curve {at} points={curve.map((c) => [c.at, c.speed])} />
			<Axes
				{at}
				xLabel="arrow, {reference.unit('mass').label}"
				yLabel="speed, {reference.unit('speed').label}"
			/>
			{#if mass !== null}
				<Mark {at} x={m(mass)} />
				<Note
					x={at.x(m(mass))}
					y={at.top - 6}
					strong
					text={`yours ${reference.text(mass, 'mass')}`}
				/>
			{/if}
			{#each shots as shot, i (i)}
				<g opacity={shot.out ? 0.4 : 1}><Spot {at} x={shot.at} y={shot.speed} of="measured" /></g>
				{#if shot.out}
					<text class="q" x={at.x(shot.at) + 9} y={at.y(shot.speed) + 4}>left out</text>
				{/if}
			{/each}
		{:else}
			{#each ['Speeds of two arrow weights, a quarter apart, say what this bow stores', 'and what moves with the arrow: every other number then narrows.'] as text, i (text)}
				<text class="q" x={width / 2} y={24 + i * 19} text-anchor="middle">{text}</text>
			{/each}
		{/if}
	{/snippet}
</Plate>
