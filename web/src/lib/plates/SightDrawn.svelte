<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Label from '$lib/charts/Label.svelte';
	import { nearest } from '$lib/charts/nearest';
	import { drag } from './drag';

	/** What the eye sees at one distance; the tip, or the crawl, can be dragged off its own place. */
	interface Props {
		aim: Schemas['CrawlsView'];
		/** Which of the chart's distances. */
		at: number;
		/** The middle of the picture, and its side. */
		cx: number;
		cy: number;
		side: number;
		hand: string;
		/** Whether what is written stands to the left. */
		slim: boolean;
	}
	let { aim, at, cx, cy, side, hand, slim }: Props = $props();

	const walks = $derived(aim.way === 'crawls');
	const seen = $derived(aim.sights[at]!);
	const dragged = $derived(aim.dragged[at]!);
	const own = $derived(
		nearest(dragged.set_to, walks ? (aim.rows[at]?.crawl_mm ?? 0) : aim.gaps[at]!.gap_cm)
	);
	/** The step it is dragged to; null where it stands as the chart says. */
	let step = $state<number | null>(null);
	let of = $state(-1);
	const here = $derived(step !== null && of === at && step !== own ? step : null);
	const k = $derived(side / 2 / seen.reach_mrad);
	const over = $derived(here === null ? seen.over_mrad : dragged.over_mrad[here]!);
	const landed = $derived(here === null ? 0 : dragged.landed_mrad[here]!);
	const share = $derived(here === null ? 1 : dragged.shaft_share[here]!);
	const tip = $derived(cy - over * k);
	const spot = $derived(seen.spot_mrad * k);
	const shaft = $derived(
		seen.shaft_mrad.map(([half, below]) => [half! * k, tip + below! * k * share] as const)
	);
	const inside = (y: number) => Math.min(Math.max(y, cy - side / 2 + 6), cy + side / 2 - 6);

	function go(to: number): void {
		[step, of] = [Math.min(Math.max(to, 0), dragged.set_to.length - 1), at];
	}
	/** The arrow follows the pointer where the string is walked, else the tip does. */
	const pointed = (_: number, y: number) =>
		go(nearest(walks ? dragged.landed_mrad : dragged.over_mrad, (cy - y) / k));
	function key(event: KeyboardEvent): void {
		const by = { ArrowUp: -1, ArrowDown: 1, ArrowLeft: -1, ArrowRight: 1 }[event.key];
		if (event.key === 'Escape' && here !== null) step = null;
		else if (by) go((here ?? own) + by);
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
	const hold = (cm: number) =>
		`hold ${reference.text(Math.abs(cm), 'spot')} ${cm < 0 ? 'over' : 'under'} the spot`;
	const setting = (value: number) =>
		walks ? `hand ${reference.text(value, 'crawl')} down` : hold(value);
	const told = $derived.by(() => {
		if (here !== null) {
			const cm = dragged.height_cm[here]!;
			const lands = `lands ${reference.text(Math.abs(cm), 'spot')} ${cm < 0 ? 'low' : 'high'}`;
			return `${setting(dragged.set_to[here]!)}: ${lands}`;
		}
		if (!walks) return hold(aim.gaps[at]!.gap_cm);
		const row = aim.rows[at]!;
		if (row.crawl_mm == null) return hold(-(row.hold_over_cm ?? 0));
		return `tip on the mark, ${setting(row.crawl_mm)}`;
	});
	const clip = $props.id();
</script>

<clipPath id="sight{clip}"
	><rect x={cx - side / 2} y={cy - side / 2} width={side} height={side} /></clipPath
>
<text x={cx - side / 2} y={cy - side / 2 - 10} style:font-weight="600"
	><Label text={`What you see at ${reference.text(seen.distance_m, 'distance')}`} /></text
>
<g clip-path="url(#sight{clip})">
	<rect
		x={cx - side / 2}
		y={cy - side / 2}
		width={side}
		height={side}
		fill="var(--raised)"
		stroke="var(--line)"
	/>
	<rect
		x={cx - spot * 3.2}
		y={cy - spot * 3.2}
		width={spot * 6.4}
		height={spot * 6.4}
		fill="url(#wood)"
		opacity="0.7"
	/>
	<circle {cx} {cy} r={spot * 2} fill="var(--paper)" stroke="var(--line)" />
	<circle {cx} {cy} r={spot} fill="var(--moss-wash)" stroke="var(--moss)" stroke-width="1.4" />
	<path
		d={`M${shaft.map(([half, y]) => `${cx + half} ${y}`).join('L')}` +
			`L${[...shaft]
				.reverse()
				.map(([half, y]) => `${cx - half} ${y}`)
				.join('L')}Z`}
		fill="var(--ink)"
		opacity="0.82"
	/>
	<path
		d="M{cx + (hand === 'left' ? 1 : -1) * side * 0.2} {cy - side / 2}v{side}"
		stroke="var(--ghost)"
		stroke-width="5"
		opacity="0.5"
	/>
	{#if here !== null}
		{@const y = inside(cy - landed * k)}
		<path d="M{cx - 6} {y - 6}l12 12m0 -12l-12 12" stroke="var(--heather)" stroke-width="2.4" />
	{/if}
</g>
<rect
	class="hold"
	x={cx - side / 2}
	y={cy - side / 2}
	width={side}
	height={side}
	fill="transparent"
	stroke="var(--quiet)"
	role="slider"
	tabindex="0"
	aria-label={walks ? 'Another crawl at this distance' : 'Another place for the tip'}
	aria-valuemin="0"
	aria-valuemax={dragged.set_to.length - 1}
	aria-valuenow={here ?? own}
	aria-valuetext={told}
	onkeydown={key}
	use:drag={pointed}
/>
<text
	class="q"
	x={slim ? cx - side / 2 : cx + side / 2}
	y={cy + side / 2 + 18}
	text-anchor={slim ? 'start' : 'end'}><Label text={told} /></text
>

<style>
	.hold {
		cursor: ns-resize;
	}
</style>
