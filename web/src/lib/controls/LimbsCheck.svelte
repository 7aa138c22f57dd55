<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import LimbsPlate from '$lib/plates/LimbsPlate.svelte';
	import MeasureField from './MeasureField.svelte';
	import SelectField from './SelectField.svelte';

	/** What stands on the two limbs, and how far their bolts are turned. */
	const bench = useBench();
	const takedown = $derived(bench().bench.takedown_recurve);
</script>

{#if takedown}
	<LimbsPlate />
	<div class="grid">
		<SelectField path="limbs.pair" />
		<MeasureField path="limbs.upper_lbf" slider={false} />
		<SelectField path="limbs.upper_class" />
		<MeasureField path="limbs.upper_turns" low={-3} high={3} step={0.25} />
		<MeasureField path="limbs.degrees_per_turn" slider={false} />
		<MeasureField path="limbs.lower_lbf" slider={false} />
		<SelectField path="limbs.lower_class" />
		<MeasureField path="limbs.lower_turns" low={-3} high={3} step={0.25} />
	</div>
{:else}
	<p class="quiet">A one-piece bow has no limbs to change: tiller and weight are its bowyer's.</p>
{/if}

<style>
	.grid {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr));
		gap: 0.4rem 1.3rem;
		margin-top: 0.5rem;
	}
	p {
		font-size: 0.9rem;
	}
</style>
