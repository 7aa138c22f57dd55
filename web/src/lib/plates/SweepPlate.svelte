<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import { area, line } from 'd3-shape';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from './Axes.svelte';
	import Label from './Label.svelte';
	import Plate from './Plate.svelte';

	/** Loudness over brace height: each trial with its scatter, the curve with its band, the next. */
	const bench = useBench();
	const told = $derived(bench().bench.listening);
	const heard = $derived((told?.heard ?? []).filter((h) => h.mean_db != null));
	const b = (brace: number) => reference.inShown(brace, 'brace');
	type Row = [brace: number, low: number, middle: number, high: number];
	const curve = $derived<Row[]>(
		told?.curve && heard.length
			? told.curve.brace_in.map((at, i) => {
					const m = told.curve!.mean_db[i]!;
					const sd = told.curve!.sd_db[i]!;
					return [b(at), m - sd, m, m + sd];
				})
			: []
	);
</script>

<Plate
	label="Loudness over brace height in this session"
	height={270}
	heads={['Brace', 'Level, dB', 'Shots', 'Feel']}
	rows={(told?.heard ?? []).map((h) => [
		reference.text(h.brace_in, 'brace'),
		h.mean_db == null ? '' : h.mean_db.toFixed(1),
		String(h.levels_db.length),
		h.feel == null ? '' : String(h.feel)
	])}
>
	{#snippet children(width, height)}
		{#if told && heard.length}
			{@const levels = [...heard.flatMap((h) => h.levels_db), ...curve.map((c) => c[2])]}
			{@const places = [told.low_in, told.high_in, ...heard.map((h) => h.brace_in)].map(b)}
			{@const x = scaleLinear()
				.domain([Math.min(...places), Math.max(...places)])
				.nice(8)
				.range([52, width - 18])}
			{@const y = scaleLinear()
				.domain([Math.min(...levels) - 1.5, Math.max(...levels) + 1.5])
				.range([height - 44, 26])}
			<clipPath id="sweep-clip"
				><rect x="52" y="20" width={width - 70} height={height - 62} /></clipPath
			>
			<g clip-path="url(#sweep-clip)">
				<path
					d={area<Row>(
						(r) => x(r[0]),
						(r) => y(r[1]),
						(r) => y(r[3])
					)(curve)}
					fill="var(--moss-wash)"
				/>
				<path
					d={line<Row>(
						(r) => x(r[0]),
						(r) => y(r[2])
					)(curve)}
					fill="none"
					stroke="var(--ink)"
					stroke-width="1.8"
				/>
			</g>
			<Axes
				{x}
				{y}
				xLabel="brace height, {reference.unit('brace').label}"
				yLabel="level, dB, this session only"
			/>
			{#if told.curve}
				{@const best = x(b(told.curve.best_in))}
				{@const [low, high] = told.curve.interval_in as [number, number]}
				<rect
					x={x(b(low))}
					y={y.range()[0]! - 5}
					width={Math.max(x(b(high)) - x(b(low)), 2)}
					height="5"
					fill="var(--moss)"
					opacity="0.6"
				/>
				<path
					d="M{best} {y.range()[0]}V{y.range()[1]}"
					stroke="var(--moss)"
					stroke-dasharray="4 3"
				/>
				<text
					class="halo"
					x={best}
					y={y.range()[1]! - 4}
					text-anchor="middle"
					style:fill="var(--moss)"
					style:font-weight="600"
					><Label text={`quietest about ${reference.text(told.curve.best_in, 'brace')}`} /></text
				>
				{#if told.curve.next_in != null}
					{@const next = x(b(told.curve.next_in))}
					<path d="M{next} {y.range()[0]! - 4}l-6 -10h12Z" fill="var(--heather)" />
					<text
						class="halo"
						x={next}
						y={y.range()[0]! - 20}
						text-anchor={next > width - 120 ? 'end' : next < 150 ? 'start' : 'middle'}
						style:fill="var(--heather)"
						style:font-weight="600"
						><Label text={`next ${reference.text(told.curve.next_in, 'brace')}`} /></text
					>
				{/if}
			{/if}
			{#each heard as h (h.seq)}
				{@const cx = x(b(h.brace_in))}
				{#each h.levels_db as level, i (i)}
					<circle {cx} cy={y(level)} r="2.6" fill="none" stroke="var(--quiet)" />
				{/each}
				<path d="M{cx - 7} {y(h.mean_db!)}h14" stroke="var(--heather)" stroke-width="2.4" />
			{/each}
		{:else}
			<text class="q" x={width / 2} y={height / 2 - 8} text-anchor="middle"
				>Shoot a few at one brace height and log how loud they were.</text
			>
			<text class="q" x={width / 2} y={height / 2 + 12} text-anchor="middle"
				>Four to twelve such trials find the quietest; the next one is always named.</text
			>
		{/if}
	{/snippet}
</Plate>
