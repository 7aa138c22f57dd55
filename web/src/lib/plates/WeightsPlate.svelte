<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import BowShape from './BowShape.svelte';
	import { fit, narrow } from './frame';
	import Plate from './Plate.svelte';

	/** The braced bow between its pockets, and what hangs on it, where it hangs. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const rig = $derived(bench().bench.rig);
	const riser = $derived((drawn?.drawing.riser_in ?? 24) / 2);
	const ROOM = 4;
	const hung = $derived(rig.weights!);
	const places = $derived([
		{ id: 'upper_pocket_g', name: 'upper pocket', x: -1.6, y: riser - 0.8 },
		{ id: 'middle_g', name: 'by the grip', x: -1.4, y: -2 },
		{ id: 'front_g', name: 'in front', x: -13, y: -5 },
		{ id: 'bar_g', name: 'bar, pocket to grip', x: -3.2, y: -riser * 0.68 },
		{ id: 'lower_pocket_g', name: 'lower pocket', x: -1.6, y: -riser + 0.8 }
	] as const);
	const grams = (id: (typeof places)[number]['id']): number => hung[id] ?? 0;
	const STEEL = 7.85 * 2.54 ** 3; // grams in a cubic inch
	/** The radius of a steel ball of so many grams, in inches. */
	const size = (g: number): number => Math.cbrt((3 * g) / (4 * Math.PI * STEEL));
	const text = (g: number): string => reference.text(g, 'hung');
</script>

<Plate
	label="The braced bow with what hangs on its riser"
	height={(width) => (narrow(width) ? 380 : 330)}
	heads={['Place', 'Weight']}
	rows={places.map((p) => [p.name, text(grams(p.id))])}
>
	{#snippet children(width, height)}
		{#if drawn}
			{@const slim = narrow(width)}
			{@const y1 = riser + ROOM}
			{@const wide = ((y1 * 2) / height) * width}
			{@const at = fit(
				{ x0: -wide * (slim ? 0.62 : 0.55), x1: wide * (slim ? 0.38 : 0.45), y0: -y1, y1 },
				{ left: 0, top: 0, width, height },
				rig.archer.hand === 'left'
			)}
			{@const anchor = at.way > 0 ? 'end' : 'start'}
			<clipPath id="weights-clip"><rect x="0" y="0" {width} {height} /></clipPath>
			<g clip-path="url(#weights-clip)"><BowShape pose={drawn.drawing.brace} {at} /></g>
			{#if grams('front_g')}
				<path
					d="M{at.x(-1)} {at.y(-5)}H{at.x(-12)}"
					stroke="var(--ink)"
					stroke-width="2.5"
					stroke-linecap="round"
				/>
			{/if}
			{#if grams('bar_g')}
				<path
					d="M{at.x(-1.4)} {at.y(-riser + 0.8)}L{at.x(-3.2)} {at.y(-riser * 0.68)}L{at.x(
						-1.2
					)} {at.y(-3)}"
					fill="none"
					stroke="var(--heather)"
					stroke-width="3"
					stroke-linejoin="round"
				/>
			{/if}
			{#each places as place (place.id)}
				{@const g = grams(place.id)}
				{#if g || place.id !== 'front_g' || !slim}
					<circle
						cx={at.x(place.x)}
						cy={at.y(place.y)}
						r={g ? Math.max(size(g) * at.scale, 5) : 4}
						fill={g ? 'var(--heather)' : 'var(--paper)'}
						stroke="var(--{g ? 'heather' : 'line'})"
					/>
					<text
						class="halo"
						class:q={!g}
						x={at.x(place.x) - at.way * (Math.max(size(g) * at.scale, 5) + 8)}
						y={at.y(place.y) + 4}
						text-anchor={anchor}
						style:fill={g ? 'var(--heather)' : undefined}
						style:font-weight={g ? 600 : undefined}>{place.name}{g ? ` ${text(g)}` : ''}</text
					>
				{/if}
			{/each}
		{/if}
	{/snippet}
</Plate>
