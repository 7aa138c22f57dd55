<script lang="ts">
	import { ApiProblem, type Schemas } from '$lib/api/client';
	import { onDestroy, untrack } from 'svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { plain } from '$lib/format/measure';
	import FieldName from './FieldName.svelte';
	import Help from './Help.svelte';

	/** A measurement typed as people say it, with what was understood, and a slider beneath. */
	interface Props {
		note: Schemas['FieldNote'];
		label?: string;
		value: number | null;
		/** Shown while the field is empty: what is used then, in stored units. */
		assumed?: number | null;
		/** Why the value is refused; what was typed stays. */
		problem?: string | null;
		/** What is kept, where it differs. */
		kept?: string | null;
		slider?: boolean;
		/** Narrower bounds for the slider, in stored units. */
		low?: number;
		high?: number;
		step?: number;
		/** Changes whenever what was typed should give way to the value. */
		reset?: unknown;
		onvalue: (value: number | null) => void;
		/** Told what could not be read, and when it can be again. */
		onunread?: (reason: string | null) => void;
		/** Enter was pressed: what was typed is wanted. */
		onenter?: () => void;
	}
	let {
		note,
		label = note.title,
		value,
		assumed = null,
		problem = null,
		kept = null,
		slider = true,
		low = note.low ?? 0,
		high = note.high ?? 1,
		step,
		reset,
		onvalue,
		onunread,
		onenter
	}: Props = $props();

	const id = $props.id();
	const quantity = $derived(note.quantity ?? 'count');
	const unit = $derived(reference.unit(quantity));
	let helping = $state(false);
	let typed = $state<string | null>(null);
	let unread = $state<string | null>(null);
	let ask = 0;
	/** Whether what was typed is still on its way to being read, and whether the field was left. */
	let reading = false;
	let left = false;
	let seen: unknown = untrack(() => reset);

	const canonical = $derived(value == null ? '' : plain(reference.shown(value, quantity)));
	const wrong = $derived(unread ?? problem);
	const understood = $derived(
		typed !== null && typed.trim() !== canonical && value != null && !wrong
			? reference.text(value, quantity) +
					(quantity === 'spine' && /#|lb/i.test(typed) ? ' by the 28-inch standard' : '')
			: null
	);
	const at = $derived(value ?? assumed ?? low);
	const share = $derived(Math.min(Math.max(((at - low) / (high - low)) * 100, 0), 100));
	const by = $derived(
		step ??
			(unit.denominator > 0
				? reference.toStored(1 / unit.denominator, quantity)
				: reference.toStored(10 ** -unit.decimals, quantity))
	);

	function tell(reason: string | null): void {
		if (reason !== unread) onunread?.(reason);
		unread = reason;
	}

	// A field that is no longer there holds nobody up.
	onDestroy(() => tell(null));

	function settle(next: number): void {
		typed = null;
		reading = false;
		tell(null);
		ask++;
		onvalue(next);
	}

	/** What cannot be read gives way to the value. */
	function forget(): void {
		typed = null;
		reading = false;
		tell(null);
		ask++;
	}

	/** The value takes the place of what was typed, once that was read and the field was left. */
	function rest(): void {
		if (left && !reading && !wrong) typed = null;
	}

	async function read(input: string): Promise<void> {
		typed = input;
		const mine = ++ask;
		reading = false;
		if (input.trim() === '' && note.optional) {
			tell(null);
			onvalue(null);
			return;
		}
		reading = true;
		try {
			const value = await reference.read(input, quantity);
			if (mine !== ask) return;
			tell(null);
			onvalue(value);
		} catch (error) {
			if (mine === ask) tell((error as ApiProblem).message);
		}
		if (mine !== ask) return;
		reading = false;
		rest();
	}

	function key(event: KeyboardEvent): void {
		if (event.key === '?') {
			event.preventDefault();
			helping = !helping;
		} else if (event.key === 'Escape' && (helping || unread !== null)) {
			// The nearest thing first: the help, then what cannot be read, then the changes.
			event.preventDefault();
			if (helping) helping = false;
			else forget();
		} else if (event.key === 'Enter' && onenter && !event.ctrlKey && !event.metaKey) {
			event.preventDefault();
			onenter();
		}
		if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
		event.preventDefault();
		const moved = at + (event.key === 'ArrowUp' ? by : -by);
		settle(Math.min(Math.max(moved, note.low ?? low), note.high ?? high));
	}

	$effect(() => {
		if (reset === seen) return;
		seen = reset;
		typed = null;
		unread = null;
	});
</script>

<div class="field" class:changed={kept !== null} class:wrong>
	<FieldName title={label} of={id} helpId="{id}-help" bind:open={helping} />
	<div class="row">
		<input
			{id}
			class="figure"
			type="text"
			autocomplete="off"
			spellcheck="false"
			value={typed ?? canonical}
			placeholder={assumed == null ? 'not set' : plain(reference.shown(assumed, quantity))}
			aria-invalid={!!wrong}
			aria-describedby="{id}-note"
			oninput={(e) => read(e.currentTarget.value)}
			onfocus={() => (left = false)}
			onblur={() => {
				left = true;
				rest();
			}}
			onkeydown={key}
		/>
		<span class="unit">{unit.label}</span>
	</div>
	{#if slider}
		<input
			type="range"
			min={low}
			max={high}
			step={by}
			value={at}
			aria-label="{label}, slider"
			tabindex="-1"
			oninput={(e) => settle(Number(e.currentTarget.value))}
			style:--share="{share}%"
		/>
	{/if}
	<Help
		path={note.path}
		title={label}
		help={note.help}
		quantity={note.quantity}
		bind:open={helping}
		id="{id}-help"
	/>
	<p id="{id}-note" class="note" aria-live="polite">
		{#if wrong}
			{wrong}
		{:else if understood}
			understood: {understood}
		{:else if kept}
			kept: {kept}
		{:else if value == null && assumed != null}
			assumed until set
		{/if}
	</p>
</div>

<style>
	.field {
		min-width: 0;
	}
	.row {
		display: flex;
		align-items: baseline;
		gap: 0.4rem;
	}
	input[type='text'] {
		font-size: 1.3rem;
		font-variant-numeric: tabular-nums;
		width: 100%;
		min-width: 0;
		background: transparent;
		border: 0;
		padding: 0;
		color: var(--ink);
		border-bottom: 1px solid transparent;
		border-radius: 0;
	}
	input[type='text']::placeholder {
		color: var(--quiet);
		opacity: 0.85;
		font-style: italic;
	}
	input[type='text']:hover,
	input[type='text']:focus {
		border-bottom-color: var(--heather);
	}
	.changed input[type='text'] {
		color: var(--heather);
	}
	.wrong input[type='text'] {
		color: var(--brick);
		border-bottom-color: var(--brick);
	}
	.unit {
		color: var(--quiet);
		font-size: 0.85rem;
	}
	.note {
		color: var(--quiet);
		font-size: 0.76rem;
		line-height: 1.25;
		min-height: 1.25em;
		margin-top: 0.15rem;
	}
	.wrong .note {
		color: var(--brick);
	}
	input[type='range'] {
		appearance: none;
		width: 100%;
		height: 24px;
		margin: 0;
		padding: 0;
		border: 0;
		background:
			linear-gradient(var(--heather), var(--heather)) left center / var(--share) 3px no-repeat,
			linear-gradient(var(--line), var(--line)) center / 100% 2px no-repeat;
		cursor: ew-resize;
	}
	input[type='range']::-webkit-slider-thumb {
		appearance: none;
		width: 3px;
		height: 15px;
		background: var(--heather);
		border-radius: 0;
	}
	input[type='range']::-moz-range-thumb {
		width: 3px;
		height: 15px;
		border: 0;
		background: var(--heather);
		border-radius: 0;
	}
</style>
