<script lang="ts">
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import Station from '$lib/frame/Station.svelte';
	import WeightsPlate from '$lib/plates/WeightsPlate.svelte';

	/** What hangs on the riser, and where. */
	const MOST = 400; // grams on the slider; more can be typed
	const STEP = 10;
</script>

<Station id="weights">
	{#snippet plate()}<WeightsPlate />{/snippet}
	{#snippet controls()}
		<MeasureField path="weights.middle_g" low={0} high={MOST} step={STEP} />
		<MeasureField path="weights.front_g" low={0} high={MOST} step={STEP} />
		<MeasureField path="weights.upper_pocket_g" low={0} high={MOST} step={STEP} />
		<MeasureField path="weights.lower_pocket_g" low={0} high={MOST} step={STEP} />
		<MeasureField path="weights.bar_g" low={0} high={MOST} step={STEP} />
	{/snippet}
</Station>
