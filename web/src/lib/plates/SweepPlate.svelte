<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/charts/Axes.svelte';
	import Band from '$lib/charts/Band.svelte';
	import Curve from '$lib/charts/Curve.svelte';
	import Mark from '$lib/charts/Mark.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { extent, plot } from '$lib/charts/plot';
	import Span from '$lib/charts/Span.svelte';
	import Spot from '$lib/charts/Spot.svelte';
	import Plate from './Plate.svelte';

	/** Loudness over brace height: each trial with its scatter, the curve with its band, the next. */
	const bench = useBench();
	const told = $derived(bench().bench.listening);
	const heard = $derived((told?.heard ?? []).filter((h) => h.mean_db != null));
	const apart = $derived(told?.apart ?? []);
	const b = (brace: number) => reference.inShown(brace, 'brace');
	/** A level on the session's axis: less what its source lies above it. */
	const on = (h: { offset_db: number | null }, level: number) => level - (h.offset_db ?? 0);
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
	height={heard.length ? 270 : 70}
	heads={['Day', 'Heard by', 'Brace', 'Level, dB', 'On one axis, dB', 'Shots', 'Feel']}
	rows={[...(told?.heard ?? []), ...apart].map((h) => [
		h.day,
		h.by,
		reference.text(h.brace_in, 'brace'),
		h.mean_db == null ? '' : h.mean_db.toFixed(1),
		h.mean_db == null ? '' : h.offset_db == null ? 'apart' : on(h, h.mean_db).toFixed(1),
		String(h.levels_db.length),
		h.feel == null ? '' : String(h.feel)
	])}
>
	{#snippet children(width, height)}
		{#if told && heard.length}
			{@const levels = [
				...heard.flatMap((h) => h.levels_db.map((l) => on(h, l))),
				...curve.map((c) => c[2])
			]}
			{@const places = [told.low_in, told.high_in, ...heard.map((h) => h.brace_in)].map(b)}
			{@const at = plot({
				x: extent(places),
				y: extent(levels, 1.5),
				left: 52,
				right: width - 18,
				top: 26,
				bottom: height - 44,
				nice: ['x']
			})}
			<clipPath id="sweep-clip"
				><rect x="52" y="20" width={width - 70} height={height - 62} /></clipPath
			>
			<g clip-path="url(#sweep-clip)">
				<Band {at} rows={curve.map(([x, low, , high]) => [x, low, high])} tone="moss" />
				<Curve {at} points={curve.map(([x, , middle]) => [x, middle])} />
			</g>
			<Axes
				{at}
				xLabel="brace height, {reference.unit('brace').label}"
				yLabel={told.stale ? `level, dB, on ${told.day}` : 'level, dB, this session only'}
			/>
			{#if told.curve}
				{@const best = b(told.curve.best_in)}
				{@const [low, high] = told.curve.interval_in as [number, number]}
				<Span {at} from={b(low)} to={b(high)} tone="moss" foot />
				<Mark {at} x={best} tone="moss" />
				<Note
					x={at.x(best)}
					y={at.top - 4}
					tone="moss"
					strong
					text={`quietest about ${reference.text(told.curve.best_in, 'brace')}`}
				/>
				{#if told.curve.next_in != null}
					{@const next = at.x(b(told.curve.next_in))}
					<path d="M{next} {at.bottom - 4}l-6 -10h12Z" fill="var(--heather)" />
					<Note
						x={next}
						y={at.bottom - 20}
						anchor={next > width - 120 ? 'end' : next < 150 ? 'start' : 'middle'}
						strong
						text={`next ${reference.text(told.curve.next_in, 'brace')}`}
					/>
				{/if}
			{/if}
			{#each heard as h (h.seq)}
				{#each h.levels_db as level, i (i)}
					<Spot {at} x={b(h.brace_in)} y={on(h, level)} of="single" />
				{/each}
				<path
					d="M{at.x(b(h.brace_in)) - 7} {at.y(on(h, h.mean_db!))}h14"
					stroke="var(--heather)"
					stroke-width="2.4"
				/>
			{/each}
		{:else}
			{#each ['Shoot a few at one brace height and log how loud they were.', 'Five to fourteen such trials tell the quietest;', 'the next one is always named.'] as text, i (text)}
				<text class="q" x={width / 2} y={18 + i * 19} text-anchor="middle">{text}</text>
			{/each}
		{/if}
	{/snippet}
</Plate>
