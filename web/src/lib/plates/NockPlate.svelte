<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Dimension from './Dimension.svelte';
	import { drag } from './drag';
	import { fit, narrow, type Frame } from './frame';
	import Label from '$lib/charts/Label.svelte';
	import Note from '$lib/charts/Note.svelte';
	import Plate from './Plate.svelte';

	/** The bow square on the string: square, the ordinary starts, and the arrow nock. In mm. */
	const bench = useBench();
	const nock = $derived(bench().bench.nock);
	const kept = $derived(bench().dirty ? bench().keptBench.nock : null);
	const rig = $derived(bench().bench.rig);
	const found = $derived(bench().bench.nock_found);
	const reads = $derived(bench().bench.nock_reads ?? []);
	/** The reads at one height stand beside one another. */
	const marks = $derived(
		reads.map((read, i) => ({
			read,
			beside: reads.slice(0, i).filter((r) => Math.abs(r.height_mm - read.height_mm) < 1).length
		}))
	);
	const TAIL = { low: 'M-5 -4H5L0 5Z', level: 'M-4 -4H4V4H-4Z', high: 'M-5 4H5L0 -5Z' };
	const n = (v: number) => reference.text(v, 'nock_height');

	const set = (at: Frame) => (_: number, y: number) =>
		bench().drag('nock_height_mm', at.atY(y), 0.5);
</script>

<Plate
	label="The nock point above square, seen from the side"
	height={(width) => (narrow(width) ? 360 : 400)}
	heads={['Nock point', 'Height']}
	rows={nock
		? [
				['as it stands', n(nock.height_mm)],
				['ordinary, lowest', n(nock.low_mm)],
				['ordinary, highest', n(nock.high_mm)],
				...(found
					? [
							['by the reads, lowest', n(found.low_mm)],
							['by the reads, highest', n(found.high_mm)],
							...reads.map((r) => [`read ${r.tail}, ${r.arrows} arrows`, n(r.height_mm)])
						]
					: [])
			]
		: []}
>
	{#snippet children(width, height)}
		{#if nock}
			{@const high = 62}
			{@const slim = narrow(width)}
			{@const deep = slim ? height - 62 : height}
			{@const wide = (width / deep) * high}
			{@const at = fit(
				{ x0: -wide * 0.66, x1: wide * 0.34, y0: -24, y1: 38 },
				{ left: 0, top: 0, width, height: deep },
				rig.archer.hand === 'left'
			)}
			{@const d = rig.arrow.diameter_mm!}
			{@const h = nock.height_mm}
			{@const edge = -wide * 0.66}
			{@const brace = (bench().bench.brace?.to_pivot_in ?? 8) * 25.4}
			{@const slope = h / brace}
			{@const low = (x: number) => h + slope * x}
			<clipPath id="nock-clip"><rect x="0" y="0" {width} height={deep} /></clipPath>
			<rect
				x={Math.min(at.x(-8), at.x(15))}
				y={at.y(nock.high_mm)}
				width={23 * at.scale}
				height={Math.max((nock.high_mm - nock.low_mm) * at.scale, 2)}
				fill="var(--moss-wash)"
			/>
			{#if !slim}
				<text
					class="halo"
					x={at.x(17)}
					y={at.y(nock.low_mm) + 14}
					text-anchor={at.way > 0 ? 'start' : 'end'}
					style:fill="var(--moss)">ordinary starts</text
				>
			{/if}
			<!-- The bow square: an arm from the rest, square to the string, and its scale. -->
			<g clip-path="url(#nock-clip)">
				<rect
					x={Math.min(at.x(edge), at.x(-1.5))}
					y={at.y(0)}
					width={Math.abs(edge + 1.5) * at.scale}
					height={3.2 * at.scale}
					fill="url(#wood)"
					stroke="var(--quiet)"
				/>
				<rect
					x={Math.min(at.x(-7.5), at.x(-1.5))}
					y={at.y(34)}
					width={6 * at.scale}
					height={50 * at.scale}
					fill="var(--paper)"
					stroke="var(--quiet)"
				/>
				{#each Array.from({ length: 25 }, (_, i) => i - 8) as i (i)}
					<path
						d="M{at.x(-1.5)} {at.y(i * 2)}H{at.x(i % 5 === 0 ? -5 : -3.4)}"
						stroke="var(--quiet)"
					/>
				{/each}
				<path
					d="M{at.x(-0.9)} {at.y(38)}V{at.y(-24)}M{at.x(0.9)} {at.y(38)}V{at.y(-24)}"
					stroke="var(--ink)"
					stroke-width="1.2"
				/>
				<path
					d="M{at.x(-4)} {at.y(low(-4) + d)}L{at.x(edge)} {at.y(low(edge) + d)}V{at.y(
						low(edge)
					)}L{at.x(-4)} {at.y(low(-4))}Z"
					fill="var(--wood)"
					stroke="var(--ink)"
				/>
				<path
					d="M{at.x(-13)} {at.y(low(-13) + d + 0.3)}L{at.x(3)} {at.y(h + d + 0.8)}L{at.x(
						0.6
					)} {at.y(h + d / 2)}L{at.x(3)} {at.y(h - 0.5)}L{at.x(-13)} {at.y(low(-13) - 0.3)}Z"
					fill="var(--ink)"
				/>
			</g>
			{#each [h - 2.4, h + d + 0.6] as y (y)}
				<rect
					x={at.x(0) - 2.2 * at.scale}
					y={at.y(y + 1.9)}
					width={4.4 * at.scale}
					height={1.9 * at.scale}
					fill="var(--heather)"
					rx="2"
				/>
			{/each}
			{#if !slim}<text class="halo q" x={at.x(-wide * 0.4)} y={at.y(-3.2) + 18} text-anchor="middle"
					><Label
						text={`square to the string; the rest is ${reference.text(brace / 25.4, 'brace')} that way`}
					/></text
				>{/if}
			{#if kept && kept.height_mm !== h}
				<path
					d="M{at.x(-12)} {at.y(kept.height_mm)}H{at.x(12)}"
					stroke="var(--ghost)"
					stroke-width="2"
				/>
			{/if}
			{#if found}
				<rect
					x={at.x(9.5) - 3}
					y={at.y(found.high_mm)}
					width="6"
					height={Math.max((found.high_mm - found.low_mm) * at.scale, 2)}
					fill="var(--heather)"
					opacity="0.35"
				/>
				{#each marks as { read, beside }, i (i)}
					<path
						d={TAIL[read.tail]}
						transform="translate({at.x(9.5) - at.way * (14 + beside * 13)} {at.y(read.height_mm)})"
						fill="var(--ink)"
						stroke="var(--paper)"
					/>
				{/each}
			{/if}
			<path d="M{at.x(2)} {at.y(h)}H{at.x(15)}" stroke="var(--heather)" stroke-dasharray="3 3" />
			<Dimension accent x1={at.x(12)} y1={at.y(0)} x2={at.x(12)} y2={at.y(h)} label="" />
			{#if !slim}
				<text
					class="halo"
					x={at.x(18)}
					y={at.y(h) + 4}
					text-anchor={at.way > 0 ? 'start' : 'end'}
					style:fill="var(--heather)"
					style:font-weight="600"><Label text={`${n(h)} above square`} /></text
				>
			{/if}
			{#if slim}
				<Note x={0} y={deep + 16} anchor="start" strong text={`${n(h)} above square`} />
				<Note
					x={0}
					y={deep + 36}
					anchor="start"
					tone="moss"
					text={`ordinary starts: ${n(nock.low_mm)} to ${n(nock.high_mm)}`}
				/>
				<Note
					x={0}
					y={deep + 56}
					anchor="start"
					tone="quiet"
					text={`square to the string; the rest is ${reference.text(brace / 25.4, 'brace')} away`}
				/>
			{/if}
			<rect
				x={at.x(0) - 26}
				y={at.y(h + d / 2) - 22}
				width="52"
				height="44"
				fill="transparent"
				style:cursor="ns-resize"
				use:drag={set(at)}
			/>
		{/if}
	{/snippet}
</Plate>
