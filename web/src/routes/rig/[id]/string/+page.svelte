<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import StringPlate from '$lib/plates/StringPlate.svelte';

	const bench = useBench();
	const fits = $derived(bench().bench.string);
	const low = $derived(bench().value('string.material') === 'low_stretch');
	const length = $derived((bench().value('bow.length_in') as number) ?? 68);
</script>

<Station
	id="string"
	leaves={[
		{ id: 'twists', title: 'Twists', body: twists },
		{ id: 'settling', title: 'Settling', body: settling },
		{ id: 'another', title: 'Another string', body: another }
	]}
>
	{#snippet plate()}<StringPlate />{/snippet}
	{#snippet controls()}
		<div class="wide">
			<ChoiceField path="string.material" />
		</div>
		{#if low}<div class="wide">
				<ChoiceField path="bow.low_stretch_rated" />
			</div>{/if}
		<SelectField path="string.build" />
		<MeasureField path="string.strands" low={8} high={28} step={1} />
		<MeasureField
			path="string.length_in"
			assumed={fits?.needed_length_in}
			low={length - 8}
			high={length}
		/>
		<MeasureField path="string.worked_in" slider={false} />
		<MeasureField path="string.mass_gr" assumed={fits?.mass_gr} low={60} high={220} />
		<MeasureField path="string.twists" low={0} high={60} step={1} />
		<MeasureField path="string.silencers_gr" low={0} high={100} />
		<MeasureField path="string.silencer_position" step={0.05} />
	{/snippet}
</Station>

{#snippet twists()}<Lazy of={() => import('$lib/controls/TwistCounter.svelte')} />{/snippet}
{#snippet settling()}<Lazy of={() => import('$lib/controls/Settling.svelte')} />{/snippet}
{#snippet another()}
	{#await import('$lib/rack/PutOn.svelte') then { default: PutOn }}<PutOn
			slots={['string']}
		/>{/await}
{/snippet}
