<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import { exactly } from '$lib/format/measure';
	import { readPlainly } from './plainly';

	/** A measurement for cold fingers: a step down, the value large, a step up; or typed. */
	interface Props {
		label: string;
		quantity: string;
		/** In stored units. */
		value: number;
		step: number;
		/** The least and the most that is taken. */
		low: number;
		high: number;
		/** Whether what is typed is no such measurement, or is still being read. */
		unread?: boolean;
		onvalue: (value: number) => void;
	}
	let {
		label,
		quantity,
		value,
		step,
		low,
		high,
		unread = $bindable(false),
		onvalue
	}: Props = $props();
	const EDGE = 1e-6; // a limit in another unit is not exact
	const uid = $props.id();
	const limit = (at: number) => exactly(reference.text(at, quantity));
	let typed = $state<string | null>(null);
	let problem = $state('');
	const shown = $derived(exactly(reference.text(value, quantity, false)));

	function by(way: 1 | -1): void {
		typed = null;
		problem = '';
		unread = false;
		// To whole steps: what was between two goes to the next.
		const steps = value / step;
		const next = way > 0 ? Math.floor(steps + 1e-6) + 1 : Math.ceil(steps - 1e-6) - 1;
		onvalue(Math.min(Math.max(next * step, low), high));
	}
	async function read(text: string): Promise<void> {
		typed = text;
		problem = '';
		unread = true;
		try {
			const read = await readPlainly(text, quantity);
			if (typed !== text) return;
			if (read < low - EDGE || read > high + EDGE)
				throw new Error(`${label} is from ${limit(low)} to ${limit(high)}.`);
			unread = false;
			onvalue(read);
		} catch (error) {
			if (typed === text) problem = (error as Error).message;
		}
	}
	function key(event: KeyboardEvent): void {
		if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
		event.preventDefault();
		by(event.key === 'ArrowUp' ? 1 : -1);
	}
</script>

<div class="stepper">
	<label for="{uid}-in">{label}</label>
	<div class="row">
		<button type="button" class="act plain" aria-label="{label}: less" onclick={() => by(-1)}
			>−</button
		>
		<span class="value" class:long={(typed ?? shown).length > 4}>
			<input
				id="{uid}-in"
				inputmode="decimal"
				autocomplete="off"
				value={typed ?? shown}
				aria-invalid={Boolean(problem)}
				aria-describedby={problem ? `${uid}-why` : undefined}
				style:width="{Math.max((typed ?? shown).length, 2) * 0.62 + 0.3}em"
				oninput={(e) => void read(e.currentTarget.value)}
				onfocus={(e) => e.currentTarget.select()}
				onblur={() => {
					if (!problem) typed = null;
				}}
				onkeydown={key}
			/><span class="unit">{reference.unit(quantity).label}</span>
		</span>
		<button type="button" class="act plain" aria-label="{label}: more" onclick={() => by(1)}
			>+</button
		>
	</div>
	{#if problem}<p id="{uid}-why" class="wrong" role="alert">{problem}</p>{/if}
</div>

<style>
	.stepper {
		container-type: inline-size;
	}
	label {
		font-size: 0.85rem;
		color: var(--quiet);
	}
	.row {
		display: grid;
		grid-template-columns: 44px minmax(0, 1fr) 44px;
		align-items: center;
		border-bottom: 1px solid var(--line);
	}
	.act {
		height: 52px;
		font-size: 1.7rem;
		line-height: 1;
		padding: 0;
		border: 0;
	}
	.value {
		display: flex;
		justify-content: center;
		align-items: baseline;
		gap: 0.35rem;
		min-width: 0;
	}
	input {
		font-size: 1.75rem;
		font-weight: 700;
		font-variant-numeric: tabular-nums;
		background: none;
		border: 0;
		padding: 0;
		color: var(--ink);
		text-align: right;
		flex: none;
	}
	/* Beside another one on a phone. */
	@container (max-width: 200px) {
		.long input {
			font-size: 1.2rem;
		}
	}
	.unit {
		color: var(--quiet);
	}
	.wrong {
		color: var(--brick);
		font-size: 0.85rem;
	}
</style>
