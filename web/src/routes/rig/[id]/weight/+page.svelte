<script lang="ts">
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import ScaleReadings from '$lib/controls/ScaleReadings.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Station from '$lib/frame/Station.svelte';
	import ForceDrawPlate from '$lib/plates/ForceDrawPlate.svelte';
</script>

<Station id="weight">
	{#snippet plate()}<ForceDrawPlate />{/snippet}
	{#snippet controls()}
		<MeasureField path="bow.marked_weight_lbf" low={15} high={80} step={0.5} />
		<MeasureField path="bow.marked_draw_in" low={24} high={32} />
		<MeasureField path="bow.maker_max_draw_in" slider={false} />
		<SelectField
			path="bow.limb_material"
			options={[
				['laminated', 'laminated'],
				['solid_glass', 'solid glass'],
				['natural', 'natural']
			]}
		/>
		<div class="whole"><ScaleReadings /></div>
	{/snippet}
</Station>
