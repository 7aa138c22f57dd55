<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import CutPlate from '$lib/plates/CutPlate.svelte';
	import SelectField from './SelectField.svelte';
	import ShaftReads from './ShaftReads.svelte';
	import Ways from './Ways.svelte';

	/** Spine by the window and by cutting, or by the school of over-stiff shafts. */
	const bench = useBench();
	const over = $derived(bench().value('spine_school') === 'over_stiff');
	const window_ = $derived(bench().bench.window);
	const spine = $derived(window_?.spine_28in ?? null);
</script>

<div class="top">
	<SelectField path="spine_school" />
	<p>
		{#if over}
			A shaft clearly over-stiff and heavy, on the side that the string favours. Shoot it one way,
			flip the bow end for end, turn the arrow half round: keep the better way, then pick the best
			flyers shaft by shaft.
		{:else if spine}
			By the model <strong
				>{reference.valueText({
					value: spine.value,
					plus_minus: spine.plus_minus,
					quantity: 'spine'
				})}</strong
			>
			suits.
			{#each window_?.shrinks ?? [] as narrower, i (i)}{i ? ' ' : 'To narrow it: '}{reference.said(
					narrower
				)}{i < window_!.shrinks.length - 1 ? ';' : '.'}{/each}
		{:else if window_}
			{reference.said(window_.start.said)}
		{/if}
	</p>
</div>
{#if over}
	<Ways />
{:else}
	<CutPlate />
	<p class="quiet">
		Start too long: a shaft that flies weak is cut by small steps and read after each. What is off
		stays off. Carbon dust harms the lungs: cut it with a saw made for it, under suction or
		outdoors, with a mask.
	</p>
	<ShaftReads offered={['length']} />
{/if}

<style>
	.top {
		display: grid;
		grid-template-columns: 11rem 1fr;
		gap: 0.4rem 1.6rem;
		align-items: start;
		margin-bottom: 0.5rem;
	}
	@media (max-width: 560px) {
		.top {
			grid-template-columns: 1fr;
		}
	}
</style>
