<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import BowShape from './BowShape.svelte';
	import Dimension from './Dimension.svelte';
	import { fit, narrow } from './frame';
	import Label from '$lib/charts/Label.svelte';
	import { extent, ruler } from '$lib/charts/plot';
	import Rule from '$lib/charts/Rule.svelte';
	import Plate from './Plate.svelte';

	/** The braced bow with its string, and the string's length against what is usual and needed. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const fits = $derived(bench().bench.string);
	const worked = $derived(bench().value('string.worked_in') != null);
	const ghost = $derived(bench().dirty ? bench().keptBench.force_draw : null);
	const rig = $derived(bench().bench.rig);
	const have = $derived(rig.string.length_in ?? null);
	const bl = (v: number) => reference.text(v, 'bow_length');
	const marks = $derived(
		fits
			? [
					{
						name: worked ? 'the one that worked' : 'usual for the bow’s length',
						at: fits.usual_length_in,
						colour: 'var(--quiet)'
					},
					{
						name: 'needed for your brace height',
						at: fits.needed_length_in,
						colour: 'var(--moss)'
					},
					...(have == null
						? []
						: [{ name: 'the string you have', at: have, colour: 'var(--heather)' }])
				]
			: []
	);
</script>

<Plate
	label="The braced bow and its string"
	height={(width) => (narrow(width) ? 350 : 400)}
	heads={['String', 'Length']}
	rows={marks.map((m) => [m.name, bl(m.at)])}
>
	{#snippet children(width, height)}
		{#if drawn && fits}
			{@const half = Math.max(rig.bow.length_in! / 2 + 1, 26)}
			{@const slim = narrow(width)}
			{@const left = slim ? -40 : Math.min(width * 0.36, 250)}
			{@const at = fit(
				{ x0: -8, x1: 17, y0: -half, y1: half },
				{ left: 0, top: 4, width: left, height: height - 8 },
				rig.archer.hand === 'left'
			)}
			{@const up = drawn.drawing.brace.upper_nock}
			{#if !slim}
				{#if ghost}<BowShape pose={ghost.drawing.brace} {at} ghost />{/if}
				<BowShape pose={drawn.drawing.brace} {at} string="accent" />
				<Dimension
					x1={at.x(14)}
					y1={at.y(up[1]!)}
					x2={at.x(14)}
					y2={at.y(-up[1]!)}
					label=""
					accent
				/>
				<text
					class="halo"
					x={at.x(14)}
					y={at.y(-up[1]!) + 16}
					text-anchor="middle"
					style:fill="var(--heather)"
					style:font-weight="600"><Label text={`${bl(have ?? fits.needed_length_in)}`} /></text
				>
			{/if}

			{@const lengths = marks.map((m) => m.at)}
			{@const x = ruler(extent(lengths, 1.5), left + 50, width - 24)}
			<text
				x={left + 40}
				y="26"
				style:font-family="var(--slab)"
				style:font-size="16px"
				style:font-weight="600">Length, loop to loop, braced</text
			>
			<Rule {x} y={150} says={bl} />
			<rect
				x={x(fits.needed_length_in - 0.5)}
				y="142"
				width={x(fits.needed_length_in + 0.5) - x(fits.needed_length_in - 0.5)}
				height="16"
				fill="var(--moss-wash)"
			/>
			{#each marks as mark, i (mark.name)}
				{@const y = 52 + i * 28}
				<path d="M{x(mark.at)} {y + 6}V150" stroke={mark.colour} stroke-width="1.6" />
				<text
					class="halo"
					x={x(mark.at) + (x(mark.at) > (x.range()[0]! + x.range()[1]!) / 2 ? -6 : 6)}
					{y}
					text-anchor={x(mark.at) > (x.range()[0]! + x.range()[1]!) / 2 ? 'end' : 'start'}
					style:fill={mark.colour}
					style:font-weight="600"><Label text={`${mark.name} ${bl(mark.at)}`} /></text
				>
			{/each}

			{@const strands = rig.string.strands!}
			{@const r = 5.2}
			{@const cx = slim ? 62 : left + 120}
			{@const cy = 275}
			<text
				x={left + 40}
				y="214"
				style:font-family="var(--slab)"
				style:font-size="16px"
				style:font-weight="600">The bundle, cut across</text
			>
			{#each Array.from({ length: strands }, (_, i) => i) as i (i)}
				{@const ring = Math.sqrt(i + 0.5) * r * 1.08}
				{@const turn = i * 2.39996}
				<circle
					cx={cx + ring * Math.cos(turn)}
					cy={cy + ring * Math.sin(turn)}
					{r}
					fill={rig.string.material === 'natural' ? 'url(#wood)' : 'var(--heather-wash)'}
					stroke="var(--ink)"
					stroke-width="0.9"
				/>
			{/each}
			<text x={cx + 70} y={cy - 18}
				>{strands} strands; {fits.usual_strands} usual for this weight</text
			>
			<text x={cx + 70} y={cy + 3} class="q"
				><Label
					text={`${fits.measured ? 'weighs' : 'weighs about'} ${reference.text(fits.mass_gr, 'mass')}`}
				/></text
			>
			<text x={cx + 70} y={cy + 24} class="q"
				><Label
					text={`carries ${reference.valueText({ ...fits.tension_lbf, quantity: 'weight' })} when braced`}
				/></text
			>
		{/if}
	{/snippet}
</Plate>
