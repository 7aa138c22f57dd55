<script lang="ts">
	import type { Shown } from '$lib/bench/reference.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { exactly } from './measure';
	import Fraction from './Fraction.svelte';

	/** A number with its unit, its fraction set as one, and its ± where it is estimated. */
	let { value, unit = true }: { value: Shown; unit?: boolean } = $props();

	const shown = $derived(reference.shown(value.value, value.quantity));
	const spread = $derived(
		value.plus_minus == null ? null : reference.spread(value.plus_minus, value.quantity)
	);
	const tight = $derived(shown.unit === '°' || shown.unit === '%');
</script>

<span class="measure"
	>{value.exact ? exactly(shown.whole) : shown.whole}{#if shown.fraction}<span class="sr-only"
			>&#32;</span
		><Fraction text={shown.fraction} />{/if}{#if spread}<span class="spread"
			>&nbsp;±&nbsp;{spread.whole}{#if spread.fraction}<Fraction
					text={spread.fraction}
				/>{/if}</span
		>{/if}{#if unit && shown.unit}<span class="unit">{tight ? '' : ' '}{shown.unit}</span
		>{/if}</span
>

<style>
	.measure {
		white-space: nowrap;
		font-variant-numeric: tabular-nums;
	}
	.spread {
		color: var(--quiet);
		font-weight: 400;
	}
</style>
