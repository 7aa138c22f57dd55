<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
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
		{#if form !== 'static_tip'}<div class="wide">
				<ChoiceField path="bow.takedown" label="Built as" />
			</div>{/if}
		<MeasureField path="bow.length_in" step={1} />
		<MeasureField path="bow.riser_in" assumed={riser} low={8} high={29} step={0.5} />
		<SelectField path="use" />
		<SelectField path="route" />
		<MeasureField path="taste" step={0.1} />
		{#if form === 'static_tip'}<SelectField path="bow.tips" />{/if}
	{/snippet}
	{#snippet more()}<Lazy of={() => import('$lib/controls/SchoolNumbers.svelte')} />{/snippet}
</Station>

{#snippet take()}<Lazy of={() => import('$lib/controls/LineUp.svelte')} />{/snippet}
{#snippet have()}
	<Lazy of={() => import('$lib/controls/ReachTable.svelte')} />
	<Lazy of={() => import('$lib/controls/Inspection.svelte')} />
{/snippet}
{#snippet map()}<Lazy of={() => import('$lib/plates/LengthMapPlate.svelte')} />{/snippet}
