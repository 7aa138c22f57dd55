<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import type { Passing } from '$lib/bench/passing.svelte';

	/** A shot in slow motion: run, stopped, stepped frame by frame or drawn along a ruler. */
	interface Props {
		told: Passing;
		frame: number;
		others: boolean;
	}
	let { told, frame = $bindable(), others = $bindable() }: Props = $props();
	/** So many real milliseconds for one of the shot's. */
	const SLOWER = 200;
	let running = $state(false);
	const last = $derived(told.time_ms.length - 1);
	/** Outside the model's range the moment is a share of the shot. */
	const moment = $derived(
		told.outside.length
			? reference.text((100 * frame) / last, 'percent')
			: reference.text(told.time_ms[frame] ?? 0, 'ms')
	);
	$effect(() => {
		if (!running) return;
		const begun = performance.now() - (told.time_ms[frame] ?? 0) * SLOWER;
		let asked = requestAnimationFrame(function step(now) {
			const t = (now - begun) / SLOWER;
			const next = told.time_ms.findIndex((at) => at > t);
			frame = next < 0 ? last : Math.max(next - 1, 0);
			if (next < 0) running = false;
			else asked = requestAnimationFrame(step);
		});
		return () => cancelAnimationFrame(asked);
	});
	function run(): void {
		if (frame >= last) frame = 0;
		running = !running;
	}
	const to = (by: number) => {
		running = false;
		frame = Math.min(Math.max(frame + by, 0), last);
	};
</script>

<div class="slow" role="group" aria-label="Slow motion">
	<button type="button" class="act" onclick={run}>{running ? 'Stop' : 'Shoot slowly'}</button>
	<button type="button" class="act plain" aria-label="One step back" onclick={() => to(-1)}
		>‹</button
	>
	<input
		type="range"
		min="0"
		max={last}
		step="1"
		bind:value={frame}
		oninput={() => (running = false)}
		aria-label="Moment of the shot"
		aria-valuetext={moment}
	/>
	<button type="button" class="act plain" aria-label="One step on" onclick={() => to(1)}>›</button>
	<output class="num">{moment}</output>
	<label class="pick"
		><input type="checkbox" bind:checked={others} /> a stiffer (– –) and a weaker one (· ·) beside</label
	>
</div>

<style>
	.slow {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		align-items: center;
		grid-column: 1 / -1;
		width: 100%;
	}
	input[type='range'] {
		flex: 1 1 10rem;
		min-width: 8rem;
		accent-color: var(--heather);
	}
	.act {
		min-height: 44px;
		min-width: 44px;
	}
	.num {
		width: 4.5rem;
	}
</style>
