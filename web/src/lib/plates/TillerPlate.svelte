<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Note from '$lib/charts/Note.svelte';
	import BowShape from './BowShape.svelte';
	import Dimension from './Dimension.svelte';
	import { fit, narrow } from './frame';
	import Plate from './Plate.svelte';

	/** The braced bow between its pockets, and both distances from limb to string. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const told = $derived(bench().bench.tiller);
	const rig = $derived(bench().bench.rig);
	const riser = $derived((drawn?.drawing.riser_in ?? 24) / 2);
	const ROOM = 5; // inches of limb beyond the pockets
	const mm = (value: number): string => reference.text(value, 'tiller');
	const small = (value: number): string => reference.text(value, 'small');

	/** The belly of the limb at a height, in inches. */
	function limbAt(y: number): number {
		const points = (drawn?.drawing.brace.upper_limb ?? []) as [number, number][];
		const near = points.filter((p) => Math.abs(p[1] - y) < 1.5).map((p) => p[0]);
		return near.length ? Math.max(...near) : 0;
	}
	const turn = (turns: number): string =>
		turns ? `${reference.text(Math.abs(turns), 'bolt')} ${turns > 0 ? 'out' : 'in'}` : '';
	const ends = $derived(
		(['upper', 'lower'] as const).map((name, i) => ({
			name,
			side: i ? -1 : 1,
			label: told ? mm(told[`${name}_mm`]) : 'not measured',
			step: told ? turn(told.step_turns[i]!) : ''
		}))
	);
</script>

<Plate
	label="The braced bow between its pockets, with the distance from each limb to the string"
	height={(width) => (narrow(width) ? 380 : 340)}
	heads={['Limb', 'To the string', 'Turn its bolt']}
	rows={ends.map((e) => [e.name, e.label, e.step])}
>
	{#snippet children(width, height)}
		{#if drawn}
			{@const slim = narrow(width)}
			{@const y1 = riser + ROOM}
			{@const deep = slim ? height - 44 : height}
			{@const wide = ((y1 * 2) / deep) * width}
			{@const at = fit(
				{ x0: -wide * 0.36, x1: wide * 0.64, y0: -y1, y1 },
				{ left: 0, top: 0, width, height: deep },
				rig.archer.hand === 'left'
			)}
			{@const string = drawn.drawing.brace.arrow_nock[0] ?? 8}
			{@const anchor = at.way > 0 ? 'start' : 'end'}
			<clipPath id="tiller-clip"><rect x="0" y="0" {width} height={deep} /></clipPath>
			<g clip-path="url(#tiller-clip)"><BowShape pose={drawn.drawing.brace} {at} /></g>
			{#each ends as end (end.name)}
				{@const y = end.side * (riser + 0.4)}
				{@const limb = limbAt(riser + 0.4)}
				<Dimension accent x1={at.x(limb)} y1={at.y(y)} x2={at.x(string)} y2={at.y(y)} label="" />
				<text
					class="halo"
					x={at.x(string) + at.way * 14}
					y={at.y(y) + 4}
					text-anchor={anchor}
					style:fill="var(--{told ? 'heather' : 'quiet'})"
					style:font-weight="600">{end.label}</text
				>
				{#if end.step}
					<text
						class="halo"
						x={at.x(limb) - at.way * (slim ? 16 : 44)}
						y={at.y(y) + 4}
						text-anchor={at.way > 0 ? 'end' : 'start'}
						style:fill="var(--heather)">{slim ? '' : 'bolt '}{end.step}</text
					>
				{/if}
			{/each}
			{#if told}
				{@const line = `tiller ${small(told.tiller_mm)} ± ${small(told.sd_mm)}`}
				{@const then = told.step_turns.some((t) => t)
					? `then ${small(told.expected_mm)} ± ${small(told.expected_sd_mm)}`
					: ''}
				{#if slim}
					<Note x={0} y={deep + 18} anchor="start" strong text={line} />
					<Note x={0} y={deep + 38} anchor="start" tone="quiet" text={then} />
				{:else}
					<text
						class="halo"
						x={at.x(string) + at.way * 14}
						y={at.y(0) - 4}
						text-anchor={anchor}
						style:fill="var(--heather)"
						style:font-weight="600">{line}</text
					>
					<text class="halo q" x={at.x(string) + at.way * 14} y={at.y(0) + 15} text-anchor={anchor}
						>{then || `left alone from ${small(told.low_mm)} to ${small(told.high_mm)}`}</text
					>
				{/if}
			{/if}
		{/if}
	{/snippet}
</Plate>
