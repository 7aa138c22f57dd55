<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ArrowShape from './ArrowShape.svelte';
	import BowShape from './BowShape.svelte';
	import Dimension from './Dimension.svelte';
	import { fit, narrow } from './frame';
	import Label from '$lib/charts/Label.svelte';
	import { ruler } from '$lib/charts/plot';
	import Plate from './Plate.svelte';

	/** The whole bow to scale at brace and at full draw, and the five schools beside it. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const ghost = $derived(bench().dirty ? bench().keptBench.force_draw : null);
	const rig = $derived(bench().bench.rig);
	const schools = $derived(bench().bench.bow_length?.schools ?? []);
	const lines = $derived(bench().bench.draw_lines);
	const nock = $derived(lines.nock_x_in);
	const length = $derived(rig.bow.length_in);
	const titles = $derived(reference.catalog?.schools ?? {});
	const verdicts = $derived(reference.catalog?.verdicts ?? {});
	const bl = (value: number) => reference.text(value, 'bow_length');

	function band(low: number | null | undefined, high: number | null | undefined): string {
		if (low == null && high == null) return '';
		if (high == null) return `${bl(low!)} or more`;
		if (low == null) return `up to ${bl(high)}`;
		return low === high ? bl(low) : `${reference.text(low, 'bow_length', false)} to ${bl(high)}`;
	}
</script>

<Plate
	label="The bow at brace and at full draw, and what five schools say of its length"
	height={(width) => (narrow(width) ? 560 : 388)}
	heads={['School', 'Lengths', 'This bow', 'Why']}
	rows={schools.map((s) => [
		titles[s.school] ?? s.school,
		band(s.low_in, s.high_in),
		verdicts[s.verdict] ?? '',
		reference.said(s.why)
	])}
>
	{#snippet children(width, height)}
		{@const slim = narrow(width)}
		{@const left = slim ? width : Math.min(width * 0.46, 340)}
		{@const top = slim ? 236 : 0}
		{@const half = Math.max(length / 2 + 1, 30)}
		{@const at = fit(
			{ x0: -7, x1: 29, y0: -half, y1: half },
			{ left: 0, top: 4, width: left, height: (slim ? top : height) - 8 },
			rig.archer.hand === 'left'
		)}
		{#if drawn}
			{@const full = drawn.drawing.full_draw}
			{#if ghost}<BowShape pose={ghost.drawing.full_draw} {at} ghost />{/if}
			<g opacity="0.4"><BowShape pose={drawn.drawing.brace} {at} riser={false} /></g>
			<BowShape pose={full} {at} />
			<ArrowShape
				{at}
				{nock}
				lengthIn={rig.arrow.shaft_length_in!}
				diameterMm={rig.arrow.diameter_mm!}
				fletchings={rig.arrow.fletching_count}
			/>
			{@const r = 30}
			{@const angle = (drawn.string_angle_deg / 2) * (Math.PI / 180)}
			{@const nx = at.x(full.arrow_nock[0]!)}
			<path
				d="M{nx - at.way * r * Math.cos(angle)} {at.y(0) -
					r * Math.sin(angle)}A{r} {r} 0 0 {at.way > 0 ? 0 : 1} {nx -
					at.way * r * Math.cos(angle)} {at.y(0) + r * Math.sin(angle)}"
				fill="none"
				stroke="var(--heather)"
			/>
			<text
				class="halo"
				x={nx - at.way * 38}
				y={at.y(0) - 12}
				text-anchor={at.way > 0 ? 'end' : 'start'}
				style:fill="var(--heather)"
				style:font-weight="600"
				><Label text={`${reference.text(drawn.string_angle_deg, 'angle')}`} /></text
			>
			<Dimension
				x1={at.x(drawn.drawing.brace.arrow_nock[0]!)}
				y1={at.y(-half * 0.36)}
				x2={at.x(0)}
				y2={at.y(-half * 0.36)}
				place="start"
				label="brace {reference.text(drawn.drawing.brace.arrow_nock[0]!, 'brace')}"
			/>
			<Dimension
				x1={at.x(lines.trade_x_in)}
				y1={at.y(-half * 0.62)}
				x2={at.x(nock)}
				y2={at.y(-half * 0.62)}
				place="end"
				label="draw {reference.text(rig.archer.draw_length_in!, 'draw')}"
			/>
		{/if}

		{@const from = slim ? 0 : left + 20}
		{@const x0 = slim ? 118 : left + 135}
		{@const lows = schools.flatMap((s) => [s.low_in, s.high_in]).filter((v) => v != null)}
		{@const shown = [Math.min(length - 4, ...lows) - 1, Math.max(length + 4, ...lows) + 2] as const}
		{@const x = ruler(shown, x0, width - 12)}
		<text
			x={from}
			y={top + 22}
			style:font-family="var(--slab)"
			style:font-size="16px"
			style:font-weight="600">What the schools say</text
		>
		{@const foot = top + 62 + schools.length * (slim ? 52 : 50) - 6}
		{#each schools as school, i (school.school)}
			{@const y = top + 62 + i * (slim ? 52 : 50)}
			{@const good = school.verdict === 'fits'}
			{@const colour =
				school.verdict === 'silent' ? 'var(--quiet)' : good ? 'var(--moss)' : 'var(--ochre)'}
			<text x={from} y={y + 4} style:font-weight="600">{titles[school.school]}</text>
			<text class="q" x={from} y={y + 20} style:fill={colour}>{verdicts[school.verdict]}</text>
			<path d="M{x.range()[0]} {y}H{x.range()[1]}" stroke="var(--line)" />
			{#if school.low_in != null || school.high_in != null}
				{@const a = Math.max(x(school.low_in ?? x.domain()[0]!), x.range()[0]!)}
				{@const b = Math.min(x(school.high_in ?? x.domain()[1]!), x.range()[1]!)}
				<rect
					x={b - a < 8 ? a - 4 : a}
					y={y - 4}
					width={Math.max(b - a, 8)}
					height="8"
					fill={colour}
				/>
				{#if school.high_in == null}<path d="M{b - 1} {y - 7}l7 7-7 7" fill={colour} />{/if}
			{/if}
			<text class="q halo" x={x0} y={y + 20} style:font-size="12px"
				><Label text={`${band(school.low_in, school.high_in)}`} /></text
			>
		{/each}
		<path d="M{x(length)} {top + 38}V{foot - 18}" stroke="var(--heather)" stroke-width="1.6" />
		<text
			class="halo"
			x={x(length)}
			y={foot}
			text-anchor="middle"
			style:fill="var(--heather)"
			style:font-weight="700"><Label text={`${bl(length)}`} /></text
		>
		{#if ghost}
			{@const was = bench().kept.rig.bow.length_in!}
			{#if was !== length}<path
					d="M{x(was)} {top + 38}V{foot - 18}"
					stroke="var(--ghost)"
					stroke-dasharray="4 3"
				/>{/if}
		{/if}
	{/snippet}
</Plate>
