<script lang="ts">
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import ScaleReadings from '$lib/controls/ScaleReadings.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import ForceDrawPlate from '$lib/plates/ForceDrawPlate.svelte';
</script>

<Station
	id="weight"
	leaves={[
		{ id: 'hold', title: 'What you can hold', body: hold },
		{ id: 'plan', title: 'Going up', body: plan },
		{ id: 'limbs', title: 'Limbs and bolts', body: limbs }
	]}
>
	{#snippet plate()}<ForceDrawPlate />{/snippet}
	{#snippet controls()}
		<MeasureField path="bow.marked_weight_lbf" low={15} high={80} step={0.5} />
		<MeasureField path="bow.marked_draw_in" low={24} high={32} />
		<MeasureField path="bow.maker_max_draw_in" slider={false} />
		<SelectField path="bow.limb_material" />
		<div class="whole"><ScaleReadings /></div>
	{/snippet}
</Station>

{#snippet hold()}<Lazy of={() => import('$lib/controls/HoldTest.svelte')} />{/snippet}
{#snippet plan()}<Lazy of={() => import('$lib/controls/StepUpPlan.svelte')} />{/snippet}
{#snippet limbs()}<Lazy of={() => import('$lib/controls/LimbsCheck.svelte')} />{/snippet}
