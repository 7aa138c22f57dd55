<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { drag } from './drag';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';

	/** The shaft's thickness from end to end, drawn thicker than long; the tapers' beginnings slide. */
	const bench = useBench();
	const profile = $derived(bench().bench.shaft?.profile ?? null);
	const kept = $derived(bench().dirty ? (bench().keptBench.shaft?.profile ?? null) : null);
	const gauges = $derived(bench().bench.shaft?.gauges ?? []);
	const arrow = $derived(bench().bench.rig.arrow);
	const built = $derived(bench().bench.arrow);
	const length = $derived(arrow.shaft_length_in!);
	const EIGHTH_IN = 1 / 8;
	const thick = (mm: number): string => reference.text(mm, 'small');
</script>

<Plate
	label="The shaft's thickness over its length"
	height={(width) => (narrow(width) ? 250 : 220)}
	heads={['From the arrow nock', 'Thick', 'May be off by']}
	rows={gauges.map((g) => [
		reference.text(g.at_in, 'draw'),
		`${g.diameter_mm.toFixed(2)} mm`,
		`± ${g.tolerance_mm.toFixed(2)} mm`
	])}
>
	{#snippet children(width, height)}
		{#if profile}
			{@const way = bench().bench.rig.archer.hand === 'left' ? -1 : 1}
			{@const rim = 22}
			{@const x = (inches: number) => {
				const share = inches / length;
				return rim + (way > 0 ? 1 - share : share) * (width - 2 * rim);
			}}
			{@const inchesAt = (px: number) => {
				const share = (px - rim) / (width - 2 * rim);
				return (way > 0 ? 1 - share : share) * length;
			}}
			{@const whole = arrow.diameter_mm!}
			{@const scale = (height - 120) / whole}
			{@const mid = 46 + (whole * scale) / 2}
			{@const outline = (p: { at_in: number[]; diameter_mm: number[] }) =>
				p.at_in
					.map((a, i) => `${i ? 'L' : 'M'}${x(a)} ${mid - (p.diameter_mm[i]! * scale) / 2}`)
					.join('') +
				p.at_in
					.map((_, i) => p.at_in.length - 1 - i)
					.map((i) => `L${x(p.at_in[i]!)} ${mid + (p.diameter_mm[i]! * scale) / 2}`)
					.join('') +
				'Z'}
			{@const rear = arrow.rear_taper_in!}
			{@const front = arrow.front_taper_in!}
			<path d={outline(profile)} fill="url(#wood)" stroke="var(--ink)" />
			{#if kept}<path
					d={outline(kept)}
					fill="none"
					stroke="var(--ghost)"
					stroke-dasharray="4 3"
				/>{/if}
			{#each [{ path: 'arrow.rear_taper_in', long: rear, at: rear, from: 0, name: 'rear taper' }, { path: 'arrow.front_taper_in', long: front, at: length - front, from: length, name: 'front taper' }] as one (one.path)}
				<path
					d="M{x(one.at)} {mid - (whole * scale) / 2 - 8}V{mid + (whole * scale) / 2 + 8}"
					stroke="var(--heather)"
					stroke-dasharray="4 3"
				/>
				<circle
					cx={x(one.at)}
					cy={mid}
					r="9"
					fill="var(--heather)"
					fill-opacity="0.3"
					stroke="var(--heather)"
					stroke-width="1.5"
					style:cursor="ew-resize"
					use:drag={(px) => bench().drag(one.path, Math.abs(inchesAt(px) - one.from), EIGHTH_IN)}
					><title>Slide the {one.name}</title></circle
				>
				<text
					class="halo"
					x={x((one.at + one.from) / 2)}
					y={mid - (whole * scale) / 2 - 14}
					text-anchor={one.long > 4 ? 'middle' : (one.from === 0) === way > 0 ? 'end' : 'start'}
					style:fill="var(--heather)"
					style:font-weight="600">{one.name} {reference.text(one.long, 'draw')}</text
				>
			{/each}
			<text class="q" x={x(0)} y={height - 44} text-anchor={way > 0 ? 'end' : 'start'}
				>arrow nock, {thick(profile.diameter_mm[0]!)}</text
			>
			<text class="q" x={x(length)} y={height - 44} text-anchor={way > 0 ? 'start' : 'end'}
				>point, {thick(profile.diameter_mm[profile.diameter_mm.length - 1]!)}</text
			>
			{#if built}
				<path
					d="M{x(built.balance_in)} {mid + (whole * scale) / 2 + 4}l-6 11h12Z"
					fill="var(--ink)"
				/>
				<text class="num" x={width / 2} y={height - 22} text-anchor="middle"
					>jig reads {built.spine_28in.toFixed(0)} · acts like {built.acts_spine.toFixed(0)} · {reference.text(
						built.mass_gr,
						'mass'
					)}</text
				>
			{/if}
			<text class="q" x={width / 2} y={height - 4} text-anchor="middle"
				>drawn {Math.max(Math.round(scale / ((width - 2 * rim) / (length * 25.4))), 1)} times thicker
				than long</text
			>
		{/if}
	{/snippet}
</Plate>
