<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import Inspection from '$lib/controls/Inspection.svelte';
	import LineUp from '$lib/controls/LineUp.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import ReachTable from '$lib/controls/ReachTable.svelte';
	import SchoolNumbers from '$lib/controls/SchoolNumbers.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Station from '$lib/frame/Station.svelte';
	import BowLengthPlate from '$lib/plates/BowLengthPlate.svelte';

	const bench = useBench();
	const form = $derived(bench().value('bow.form'));
	const riser = $derived(bench().bench.force_draw?.drawing.riser_in ?? null);

	/** Another form begins at its own ordinary starts; what was set otherwise than usual stays. */
	function usual(id: string): Record<string, unknown> {
		const forms = reference.catalog?.forms ?? {};
		const was = forms[String(form)]?.start ?? {};
		return Object.fromEntries(
			Object.entries(forms[id]?.start ?? {}).filter(
				([path]) => path === 'bow.form' || bench().value(path) === was[path]
			)
		);
	}
</script>

<Station
	id="bow-length"
	leaves={[
		{ id: 'take', title: 'Bows you could take', body: take },
		{ id: 'have', title: 'The bow you have', body: have, trial: true },
		{ id: 'map', title: 'Where you stand', body: map }
	]}
>
	{#snippet plate()}<BowLengthPlate />{/snippet}
	{#snippet controls()}
		<div class="three"><ChoiceField path="bow.form" also={usual} /></div>
		{#if form === 'recurve'}<div class="wide">
				<ChoiceField path="bow.takedown" label="Built as" />
			</div>{/if}
		<MeasureField path="bow.length_in" step={1} />
		<MeasureField path="bow.riser_in" assumed={riser} low={8} high={29} step={0.5} />
		<SelectField path="use" />
		<MeasureField path="taste" step={0.1} />
		{#if form === 'static_tip'}<SelectField path="bow.tips" />{/if}
	{/snippet}
</Station>

{#snippet take()}<LineUp /><SchoolNumbers />{/snippet}
{#snippet have()}<ReachTable /><Inspection />{/snippet}
{#snippet map()}
	{#await import('$lib/plates/LengthMapPlate.svelte') then { default: LengthMapPlate }}
		<LengthMapPlate />
	{/await}
{/snippet}
