<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Dimension from '$lib/plates/Dimension.svelte';
	import { curveCatmullRomClosed, line } from 'd3-shape';
	import { fit, path, type Point } from '$lib/plates/frame';
	import { leaders, type Word } from './leaders';

	/** A drawing of some terms: a part lights up from its word, and the word from its part. */
	interface Props {
		drawing: Schemas['Drawing'];
		words: Map<string, string>;
		/** What a school calls its dimension. */
		schools: Map<string, string>;
		lit: string | null;
		/** Told which word is touched; where it stays, the hand may leave. */
		onlit: (term: string | null, stays: boolean) => void;
	}
	let { drawing, words, schools, lit, onlit }: Props = $props();

	type Shape = Schemas['Shape'];
	const ROW = 34;
	const MOST_HIGH = 330;
	let width = $state(700);
	const wide = $derived(drawing.right - drawing.left);
	const high = $derived(drawing.top - drawing.bottom);
	const picture = $derived(Math.min((width / wide) * high, MOST_HIGH));
	const at = $derived(
		fit(
			{ x0: drawing.left, x1: drawing.right, y0: drawing.bottom, y1: drawing.top },
			{ left: 0, top: ROW, width, height: picture }
		)
	);
	const height = $derived(picture + 2 * ROW);

	const curve = line<Point>(
		(p) => at.x(p[0]!),
		(p) => at.y(p[1]!)
	);
	const curved = (shape: Shape): string =>
		curve.curve(curveCatmullRomClosed)(shape.points as Point[]) ?? '';

	function heart(shape: Shape): [number, number] {
		const points = shape.points as [number, number][];
		if (shape.kind !== 'area') {
			const a = points[Math.floor((points.length - 1) / 2)]!;
			const b = points[Math.ceil((points.length - 1) / 2)]!;
			return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
		}
		const sum = points.reduce(([x, y], [px, py]) => [x + px, y + py], [0, 0]);
		return [sum[0]! / points.length, sum[1]! / points.length];
	}
	/** Each word once, led to the first of its parts that is no dimension. */
	const named = $derived.by(() => {
		const first: Record<string, Word> = {};
		for (const shape of [...drawing.shapes].sort(
			(a, b) => Number(a.kind === 'span') - Number(b.kind === 'span')
		)) {
			if (!shape.term || shape.term in first) continue;
			const [x, y] = heart(shape);
			const text = words.get(shape.term) ?? shape.term;
			first[shape.term] = { id: shape.term, text, x: at.x(x), y: at.y(y) };
		}
		return Object.values(first);
	});
	const placed = $derived(leaders(named, 2, width - 2, ROW + picture / 2));

	const styles: Record<
		Shape['style'],
		{ fill: string; stroke: string; wide: number; dash?: string }
	> = {
		ink: { fill: 'var(--ink)', stroke: 'var(--ink)', wide: 1.2 },
		wood: { fill: 'url(#wood)', stroke: 'var(--ink)', wide: 1.1 },
		paper: { fill: 'var(--paper)', stroke: 'var(--ink)', wide: 1.1 },
		thread: { fill: 'none', stroke: 'var(--ink)', wide: 1.3 },
		wash: { fill: 'var(--moss-wash)', stroke: 'var(--quiet)', wide: 0.9 },
		dashed: { fill: 'none', stroke: 'var(--line)', wide: 1, dash: '4 3' }
	};

	/** Touching a part lights its word; a touch beside every part puts the light out. */
	function touched(svg: SVGSVGElement) {
		const term = (event: Event) =>
			(event.target as Element).closest<SVGElement>('[data-term]')?.dataset.term ?? null;
		const over = (event: Event) => {
			const found = term(event);
			if (found) onlit(found, false);
		};
		const press = (event: Event) => onlit(term(event), true);
		svg.addEventListener('pointerover', over);
		svg.addEventListener('click', press);
		return {
			destroy() {
				svg.removeEventListener('pointerover', over);
				svg.removeEventListener('click', press);
			}
		};
	}
</script>

{#snippet ink(shape: Shape)}
	{@const on = shape.term !== null && shape.term === lit}
	{@const style = styles[shape.style]}
	<g data-term={shape.term}>
		{#if shape.kind === 'span'}
			{@const [a, b] = shape.points as [number, number][]}
			{@const [x1, y1, x2, y2] = [at.x(a![0]), at.y(a![1]), at.x(b![0]), at.y(b![1])]}
			<Dimension
				{x1}
				{y1}
				{x2}
				{y2}
				accent={on}
				label={[schools.get(shape.part ?? ''), shape.value ? reference.valueText(shape.value) : '']
					.filter(Boolean)
					.join(' ')}
			/>
			<path d="M{x1} {y1}L{x2} {y2}" stroke="transparent" stroke-width="14" fill="none" />
		{:else}
			{@const outline = shape.smooth
				? curved(shape)
				: path(shape.points, at, shape.kind === 'area')}
			<path
				d={outline}
				fill={shape.kind === 'line' ? 'none' : on ? 'var(--heather)' : style.fill}
				stroke={on ? 'var(--heather)' : style.stroke}
				stroke-width={on ? style.wide + 1.6 : style.wide}
				stroke-dasharray={on ? undefined : style.dash}
				stroke-linejoin="round"
			/>
			{#if shape.term}<path
					d={outline}
					fill="none"
					stroke="transparent"
					stroke-width="12"
					style:pointer-events="stroke"
				/>{/if}
		{/if}
	</g>
{/snippet}

<div bind:clientWidth={width}>
	<svg
		{width}
		{height}
		viewBox="0 0 {width} {height}"
		role="img"
		aria-label={drawing.title}
		use:touched
	>
		<clipPath id="clip-{drawing.id}"><rect x="0" y={ROW} {width} height={picture} /></clipPath>
		<g clip-path="url(#clip-{drawing.id})">
			{#each drawing.shapes as shape, i (i)}{@render ink(shape)}{/each}
			<!-- What is lit lies on top. -->
			{#each drawing.shapes.filter((s) => s.term !== null && s.term === lit) as shape, i (i)}
				{@render ink(shape)}
			{/each}
		</g>
		{#each placed ?? [] as word (word.id)}
			{@const on = word.id === lit}
			{@const y = word.row === 'above' ? 13 : height - 5}
			{@const from = word.row === 'above' ? 18 : height - 18}
			<g data-term={word.id} class="word">
				<path
					d="M{word.at} {from}L{word.x} {word.y}"
					stroke={on ? 'var(--heather)' : 'var(--line)'}
					stroke-width={on ? 1.4 : 0.8}
				/>
				<circle cx={word.x} cy={word.y} r="1.8" fill={on ? 'var(--heather)' : 'var(--quiet)'} />
				<rect
					x={word.at - word.text.length * 3.3 - 6}
					y={word.row === 'above' ? 0 : height - 24}
					width={word.text.length * 6.6 + 12}
					height="24"
					fill="transparent"
				/>
				<text
					x={word.at}
					{y}
					text-anchor="middle"
					style:fill={on ? 'var(--heather)' : undefined}
					style:font-weight={on ? 700 : 400}>{word.text}</text
				>
			</g>
		{/each}
	</svg>
	{#if !placed}
		<div class="words">
			{#each named as word (word.id)}
				<button
					class="link"
					class:lit={word.id === lit}
					aria-pressed={word.id === lit}
					onclick={() => onlit(word.id, true)}>{word.text}</button
				>
			{/each}
		</div>
	{/if}
</div>

<style>
	svg {
		display: block;
		width: 100%;
	}
	svg :global(text) {
		font-size: 12.5px;
		fill: var(--ink);
	}
	svg :global(.halo) {
		paint-order: stroke;
		stroke: var(--paper);
		stroke-width: 4px;
		stroke-linejoin: round;
	}
	[data-term] {
		cursor: pointer;
	}
	.words {
		display: flex;
		flex-wrap: wrap;
		gap: 0 1rem;
	}
	.link {
		font-weight: 400;
		color: var(--ink);
	}
	.lit {
		color: var(--heather);
		font-weight: 700;
	}
</style>
