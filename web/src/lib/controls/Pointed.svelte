<script module lang="ts">
	export interface PointMark {
		x: number;
		y: number;
		text: string;
		tone?: 'heather' | 'ochre' | 'moss' | 'ink';
	}
</script>

<script lang="ts">
	import type { Snippet } from 'svelte';

	/** A picture in which places are marked: by a tap, or by a cursor that the arrow keys move. */
	interface Props {
		label: string;
		/** The picture's own size [px]. */
		width: number;
		height: number;
		picture: Snippet;
		marks: PointMark[];
		onpick: (x: number, y: number) => void;
		/** More drawn over it, in the picture's pixels. */
		over?: Snippet<[unit: number]>;
	}
	let { label, width, height, picture, marks, onpick, over }: Props = $props();
	let shown = $state(640);
	/** So many times as large as there is room for; the rest is scrolled to. */
	let zoom = $state(1);
	let room = $state<HTMLElement>();
	let field = $state<HTMLElement>();
	/** One screen pixel in the picture's. */
	const unit = $derived(width / Math.max(shown, 1));
	let cursor = $state<{ x: number; y: number } | null>(null);
	const STEPS: Record<string, [number, number]> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, -1],
		ArrowDown: [0, 1]
	};

	function key(event: KeyboardEvent): void {
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		const at = cursor ?? { x: width / 2, y: height / 2 };
		const step = STEPS[event.key];
		if (step) {
			const by = (event.shiftKey ? 0.1 : 1) * 0.01 * width;
			cursor = {
				x: Math.min(Math.max(at.x + step[0] * by, 0), width),
				y: Math.min(Math.max(at.y + step[1] * by, 0), height)
			};
		} else if (event.key === 'Enter' || event.key === ' ') {
			cursor = at;
			onpick(at.x, at.y);
		} else return;
		event.preventDefault();
	}
	/** Larger about the cursor, the latest mark or the middle. */
	function larger(to: number): void {
		const at = cursor ?? marks.at(-1) ?? { x: width / 2, y: height / 2 };
		zoom = to;
		requestAnimationFrame(() => show(at));
	}
	function show(at: { x: number; y: number }): void {
		if (!room || !field) return;
		room.scrollLeft = (at.x / width) * field.clientWidth - room.clientWidth / 2;
		room.scrollTop = (at.y / height) * field.clientHeight - room.clientHeight / 2;
	}
	$effect(() => {
		if (cursor && zoom > 1) show(cursor);
	});
	function tap(event: MouseEvent): void {
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		cursor = null;
		onpick(
			((event.clientX - box.left) / box.width) * width,
			((event.clientY - box.top) / box.height) * height
		);
	}
</script>

<div class="room" bind:this={room}>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<div
		class="pointed"
		bind:this={field}
		style:width="{100 * zoom}%"
		role="application"
		tabindex="0"
		aria-label="{label}. Arrow keys move the cursor, with Shift finely; Enter marks."
		bind:clientWidth={shown}
		style:aspect-ratio="{width} / {height}"
		onclick={tap}
		onkeydown={key}
		onfocus={(e) => {
			if (e.currentTarget.matches(':focus-visible')) cursor ??= { x: width / 2, y: height / 2 };
		}}
	>
		{@render picture()}
		<svg viewBox="0 0 {width} {height}" aria-hidden="true">
			{@render over?.(unit)}
			{#each marks as mark, i (i)}
				<circle
					cx={mark.x}
					cy={mark.y}
					r={6 * unit}
					fill="none"
					stroke="var(--paper)"
					stroke-width={4 * unit}
				/>
				<circle
					cx={mark.x}
					cy={mark.y}
					r={6 * unit}
					fill="none"
					stroke="var(--{mark.tone ?? 'heather'})"
					stroke-width={2 * unit}
				/>
				<text
					class="halo"
					x={mark.x + 9 * unit}
					y={mark.y - 6 * unit}
					font-size={13 * unit}
					stroke-width={3 * unit}>{mark.text}</text
				>
			{/each}
			{#if cursor}
				<path
					d="M{cursor.x - 16 * unit} {cursor.y}h{32 * unit}M{cursor.x} {cursor.y - 16 * unit}v{32 *
						unit}"
					stroke="var(--paper)"
					stroke-width={4 * unit}
				/>
				<path
					d="M{cursor.x - 16 * unit} {cursor.y}h{32 * unit}M{cursor.x} {cursor.y - 16 * unit}v{32 *
						unit}"
					stroke="var(--ink)"
					stroke-width={1.5 * unit}
				/>
			{/if}
		</svg>
	</div>
</div>
<div class="zoom" role="group" aria-label="Size of the picture">
	{#each [1, 2, 4] as to (to)}
		<button type="button" class="link" aria-pressed={zoom === to} onclick={() => larger(to)}
			>× {to}</button
		>
	{/each}
</div>

<style>
	.room {
		max-height: 72vh;
		overflow: auto;
		border: 1px solid var(--line);
	}
	.zoom {
		display: flex;
		gap: 1rem;
		justify-content: flex-end;
	}
	.zoom [aria-pressed='true'] {
		color: var(--ink);
		text-decoration-color: transparent;
	}
	.pointed {
		position: relative;
		overflow: hidden;
		cursor: crosshair;
		touch-action: manipulation;
	}
	.pointed > :global(:is(img, video, canvas)) {
		display: block;
		width: 100%;
		height: 100%;
	}
	svg {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
		pointer-events: none;
	}
	text {
		fill: var(--ink);
		paint-order: stroke;
		stroke: var(--paper);
		font-weight: 600;
	}
</style>
