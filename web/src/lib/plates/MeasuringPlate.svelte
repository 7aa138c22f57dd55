<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Dimension from './Dimension.svelte';
	import { fit, path, type Frame, type Point } from './frame';
	import Label from '$lib/charts/Label.svelte';
	import Plate from './Plate.svelte';

	/** Where the tape goes: for each way of measuring, from what to what, and what it yields. */
	interface Props {
		method: 'tape' | 'arm_span' | 'marked_arrow';
		convention: 'trade' | 'pivot' | 'back';
		/** The latest reading [in], or a usual one while there is none. */
		reading: number | null;
		/** What one reading comes to as a draw [in], where that was asked. */
		comes?: number | null;
	}
	let { method, convention, reading, comes = null }: Props = $props();

	const bench = useBench();
	const rig = $derived(bench().bench.rig);
	const lines = $derived(bench().bench.draw_lines);
	const trade = $derived(lines.trade_x_in);
	const left = $derived(rig.archer.hand === 'left');
	const inches = (value: number) => reference.text(value, 'draw');
	const titles = {
		tape: 'Tape: fingertip to the front of the shoulder, bow arm out',
		arm_span: 'Tape: fingertip to fingertip, both arms out, then divided by 2.5',
		marked_arrow: 'An arrow drawn, and marked where it passes the bow'
	};
	const ends = $derived({
		trade: ['from the arrow nock’s throat', `to ${inches(-trade)} before the pivot`],
		pivot: ['from the arrow nock’s throat', 'to the deepest part of the grip'],
		back: ['from the arrow nock’s throat', 'to the far side of the bow']
	});
	const rows = $derived(
		method === 'arm_span'
			? [['fingertip to fingertip, divided by 2.5', 'trade standard, a first guess']]
			: method === 'tape'
				? [['fingertip to shoulder, bow arm out', 'trade standard, a first guess']]
				: [[ends[convention].join(' '), 'trade standard, measured']]
	);

	/** Half of a standing archer from the front, in centimetres; the other half mirrors it. */
	const HALF: Point[] = [
		[0, 151],
		[6, 150],
		[19, 147],
		[48, 145.5],
		[72, 144],
		[77, 144.4],
		[86, 143],
		[86, 141.5],
		[77, 140],
		[72, 140],
		[48, 138.5],
		[21, 134],
		[18, 118],
		[16, 100],
		[0, 100]
	];
	const body = (at: Frame) =>
		path([...HALF, ...[...HALF].reverse().map(([x, y]) => [-x!, y!])], at, true);
</script>

<Plate
	label="{titles[method]}{left ? ', left-handed' : ''}"
	height={170}
	heads={['Measured', 'Yields']}
	{rows}
>
	{#snippet children(width, height)}
		{#if method === 'marked_arrow'}
			{@const nock = lines.nock_x_in}
			{@const at = fit(
				{ x0: -6, x1: nock + 4, y0: -3, y1: 3 },
				{ left: 0, top: 8, width, height: height - 20 },
				left
			)}
			{@const to = convention === 'pivot' ? 0 : trade}
			<path
				d={path(
					[
						[-1.7, 3],
						[trade, -3],
						[0.5, -3],
						[0.35, -1.6],
						[0, -0.9],
						[0.4, -0.1],
						[1.2, 0.2],
						[1.2, 3]
					],
					at,
					true
				)}
				fill="url(#wood)"
				stroke="var(--ink)"
				stroke-width="1.3"
			/>
			<path
				d="M{at.x(-5.4)} {at.y(0.5)}H{at.x(nock)}"
				stroke="var(--ink)"
				stroke-width="3"
				stroke-linecap="round"
			/>
			<path
				d="M{at.x(nock)} {at.y(3)}L{at.x(nock)} {at.y(-3)}"
				stroke="var(--ink)"
				stroke-dasharray="1 4"
			/>
			<path
				d="M{at.x(to)} {at.y(1.3)}V{at.y(-2.3)}"
				stroke="var(--heather)"
				stroke-width="1.5"
				stroke-dasharray="4 3"
			/>
			<circle cx={at.x(to)} cy={at.y(0.5)} r="4" fill="var(--heather)" />
			<Dimension
				accent
				x1={at.x(to)}
				y1={at.y(-1.8)}
				x2={at.x(nock)}
				y2={at.y(-1.8)}
				below
				label={reading == null ? 'read this, nock throat to the mark' : `read ${inches(reading)}`}
			/>
			<text class="q halo" x={at.x(nock / 2)} y={at.y(1.7)} text-anchor="middle"
				><Label text={ends[convention][1]!} /></text
			>
		{:else}
			{@const at = fit(
				{ x0: -100, x1: 100, y0: 100, y1: 180 },
				{ left: 0, top: 4, width, height: height - 8 },
				left
			)}
			<path
				d={body(at)}
				fill="var(--hair)"
				stroke="var(--ink)"
				stroke-width="1.2"
				stroke-linejoin="round"
			/>
			<ellipse
				cx={at.x(0)}
				cy={at.y(164)}
				rx={8.5 * at.scale}
				ry={11.5 * at.scale}
				fill="var(--hair)"
				stroke="var(--ink)"
				stroke-width="1.2"
			/>
			{@const a = -86}
			{@const b = method === 'arm_span' ? 86 : -19}
			{#each [a, b] as end (end)}
				<path
					d="M{at.x(end)} {at.y(142)}V{at.y(124)}"
					stroke="var(--heather)"
					stroke-dasharray="3 3"
				/>
			{/each}
			<Dimension
				accent
				x1={at.x(a)}
				y1={at.y(126)}
				x2={at.x(b)}
				y2={at.y(126)}
				below
				label={reading == null
					? 'the tape'
					: method === 'arm_span'
						? `${inches(reading)} ÷ 2.5${comes == null ? '' : ` = ${inches(comes)}`}`
						: inches(reading)}
			/>
			<text class="q halo" x={at.x(-62)} y={at.y(154)} text-anchor="middle">bow arm</text>
		{/if}
	{/snippet}
</Plate>
