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
	import Leaves from '$lib/frame/Leaves.svelte';
	import Station from '$lib/frame/Station.svelte';
	import BowLengthPlate from '$lib/plates/BowLengthPlate.svelte';

	const bench = useBench();
	const form = $derived(bench().value('bow.form'));
	const riser = $derived(bench().bench.force_draw?.drawing.riser_in ?? null);

	/** Another form begins at its own ordinary starts. */
	const usual = (id: string): Record<string, unknown> => reference.catalog?.forms[id]?.start ?? {};
</script>

<Station id="bow-length">
	{#snippet plate()}<BowLengthPlate />{/snippet}
	{#snippet controls()}
		<div class="three"><ChoiceField path="bow.form" also={usual} /></div>
		{#if form === 'recurve'}<div class="wide">
				<ChoiceField path="bow.takedown" label="Built as" />
			</div>{/if}
		<MeasureField path="bow.length_in" step={1} />
		<MeasureField path="bow.riser_in" assumed={riser} low={8} high={29} step={0.5} />
		<SelectField path="use" />
		<MeasureField path="taste" label="Taste, −1 to +1" step={0.1} />
		{#if form === 'static_tip'}<SelectField path="bow.tips" />{/if}
	{/snippet}
	{#snippet more()}
		<Leaves
			leaves={[
				{ id: 'take', title: 'Bows you could take', body: take },
				{ id: 'have', title: 'The bow you have', body: have },
				{ id: 'map', title: 'Where you stand', body: map }
			]}
		/>
	{/snippet}
</Station>

{#snippet take()}<LineUp /><SchoolNumbers />{/snippet}
{#snippet have()}<ReachTable /><Inspection />{/snippet}
{#snippet map()}
	{#await import('$lib/plates/LengthMapPlate.svelte') then { default: LengthMapPlate }}
		<LengthMapPlate />
	{/await}
{/snippet}
