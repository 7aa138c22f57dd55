<script lang="ts">
	import { curveCatmullRom, line as d3line } from 'd3-shape';
	import { useBench } from '$lib/bench/bench.svelte';
	import type { Passing } from '$lib/bench/passing.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Note from '$lib/charts/Note.svelte';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';

	/**
	 * The shaft passing the bow, seen from above: the string, the side plate, the shaft as it is and,
	 * thinner, a stiffer and a weaker one. Sideways it is drawn larger than along.
	 */
	interface Props {
		told: Passing;
		/** Which frame. */
		frame: number;
		/** Whether the stiffer and the weaker shaft are drawn too. */
		others: boolean;
	}
	let { told, frame, others }: Props = $props();
	const bench = useBench();
	const up = $derived(bench().bench.reading?.plate_left ? 1 : -1);
	const back = $derived(Math.max(...told.nock_mm) + 45);
	const fore = $derived(told.plate_at_mm + 330);
	const now = $derived(told.time_ms[frame] ?? 0);
	const nock = $derived(told.nock_mm[frame] ?? 0);
	const present = $derived(told.shots[1]!);
	const pushed = $derived(present.push_n[frame] ?? 0);
	const every = $derived(told.shots.flatMap((s) => s.aside_mm.flat()));
	const out = $derived(Math.max(...every, 6) + 4);
	const inward = $derived(Math.min(...every, told.plate_mm) - 10);
	const NAMES = ['a stiffer one', 'this shaft', 'a weaker one'];
	/** Outside what the model was tuned to there are shapes, and no number. */
	const fitted = $derived(!told.outside.length);
	const bend = d3line<[number, number]>().curve(curveCatmullRom);
	const ms = (v: number) => reference.text(v, 'ms');
	const rows = $derived(
		told.time_ms
			.map((t, i) => [
				ms(t),
				...told.shots.map((s) => s.aside_mm[i]![0]!.toFixed(1)),
				present.push_n[i]!.toFixed(1)
			])
			.filter((_, i) => i % 6 === 0)
	);
</script>

<Plate
	label="The shaft passing the bow, seen from above"
	height={(width) => (narrow(width) ? 270 : 330)}
	least={200}
	heads={!fitted
		? undefined
		: ['Moment', ...NAMES.map((n) => `nock aside, ${n} (mm)`), 'on the plate (N)']}
	{rows}
>
	{#snippet children(width, height)}
		{@const foot = height - 44}
		{@const x = (mm: number) => ((mm + back) / (back + fore)) * width}
		{@const k = foot / (out - inward)}
		{@const middle = up > 0 ? out * k : -inward * k}
		{@const y = (mm: number) => middle - up * mm * k}
		{@const edge = y(told.plate_mm)}
		{@const wall = up > 0 ? foot : 0}
		{@const line = (row: number[]) =>
			bend(row.map((a, i) => [x(told.along_mm[i]! - nock), y(a)] as [number, number]))}
		<clipPath id="passing-field"><rect x="0" y="0" {width} height={foot} /></clipPath>
		<g clip-path="url(#passing-field)">
			<path d="M0 {middle}H{width}" stroke="var(--hair)" stroke-dasharray="6 5" />
			<!-- The bow's side plate, and the riser behind it. -->
			<rect
				x={x(told.plate_at_mm) - 13}
				y={Math.min(edge, wall)}
				width="26"
				height={Math.abs(wall - edge)}
				fill="url(#wood)"
				stroke="var(--quiet)"
			/>
			<rect
				x={x(told.plate_at_mm) - 13}
				y={up > 0 ? edge : edge - 4}
				width="26"
				height="4"
				fill={pushed > 0 ? 'var(--brick)' : 'var(--quiet)'}
			/>
			<!-- The string: from the nock to where it stands braced. -->
			{#if now <= told.exit_ms}
				<path
					d="M{x(-nock)} {y(present.aside_mm[frame]![0]!)}L{x(0)} {middle}"
					stroke="var(--ink)"
					stroke-width="1"
					opacity="0.55"
				/>
			{/if}
			<circle
				cx={x(now <= told.exit_ms ? -nock : 0)}
				cy={now <= told.exit_ms ? y(present.aside_mm[frame]![0]!) : middle}
				r="3.5"
				fill="var(--ink)"
			/>
			{#if others}
				<path
					d={line(told.shots[0]!.aside_mm[frame]!)}
					fill="none"
					stroke="var(--moss)"
					stroke-width="1.6"
					stroke-dasharray="7 4"
				/>
				<path
					d={line(told.shots[2]!.aside_mm[frame]!)}
					fill="none"
					stroke="var(--ochre)"
					stroke-width="1.6"
					stroke-dasharray="2 4"
				/>
			{/if}
			<path
				d={line(present.aside_mm[frame]!)}
				fill="none"
				stroke="var(--heather)"
				stroke-width={Math.max(2 * told.radius_mm * 0.55, 3)}
				stroke-linecap="round"
			/>
		</g>
		{#if pushed > 0 && fitted}
			<Note
				x={Math.min(x(told.plate_at_mm) + 18, width - 4)}
				y={edge + (up > 0 ? 18 : -10)}
				anchor={narrow(width) ? 'end' : 'start'}
				tone="brick"
				text={`${pushed.toFixed(1)} N on the plate`}
			/>
		{/if}
		<Note x={4} y={middle - 6} anchor="start" tone="quiet" text="the string's plane" />
		<Note x={width - 4} y={16} anchor="end" tone="quiet" text="to the butt →" />
		<!-- When what happens: the plate touched, the string let go. -->
		{@const t = (v: number) => 8 + (v / told.time_ms[told.time_ms.length - 1]!) * (width - 16)}
		<path d="M8 {height - 26}H{width - 8}" stroke="var(--quiet)" />
		{#each told.time_ms as at, i (i)}
			{#if present.push_n[i]! > 0 && i + 1 < told.time_ms.length}
				<path
					d="M{t(at)} {height - 26}H{t(told.time_ms[i + 1]!)}"
					stroke="var(--brick)"
					stroke-width="6"
				/>
			{/if}
		{/each}
		<path d="M{t(told.exit_ms)} {height - 34}v16" stroke="var(--ink)" />
		<Note
			x={t(told.exit_ms) - 4}
			y={height - 6}
			anchor="end"
			tone="ink"
			text={fitted ? `the string lets go at ${ms(told.exit_ms)}` : 'the string lets go'}
		/>
		<circle cx={t(now)} cy={height - 26} r="5" fill="var(--heather)" />
		{#if !narrow(width)}
			<Note
				x={8}
				y={height - 6}
				anchor="start"
				tone="brick"
				text={present.first_ms == null ? '' : 'on the side plate'}
			/>
			<Note
				x={4}
				y={foot - 8}
				anchor="start"
				tone="quiet"
				text={`sideways drawn ${(k / (width / (back + fore))).toFixed(0)} times larger; shaft ${reference.text(present.spine, 'spine')}`}
			/>
		{/if}
	{/snippet}
</Plate>
