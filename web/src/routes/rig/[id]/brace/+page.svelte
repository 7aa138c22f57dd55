<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import BracePlate from '$lib/plates/BracePlate.svelte';

	const bench = useBench();
	const brace = $derived(bench().bench.brace);
	const elsewhere = $derived(bench().value('bow.brace_reference') !== 'grip');
</script>

<Station
	id="brace"
	leaves={[
		{ id: 'listen', title: 'Listen', body: listen, trial: true },
		{ id: 'twists', title: 'Twists', body: twists }
	]}
>
	{#snippet plate()}<BracePlate />{/snippet}
	{#snippet controls()}
		<MeasureField
			path="bow.brace_height_in"
			assumed={brace?.brace_in}
			low={5}
			high={10.5}
			step={0.0625}
		/>
		<div class="wide">
			<ChoiceField path="bow.brace_reference" />
		</div>
		{#if elsewhere}<MeasureField
				path="bow.brace_offset_in"
				label="Reference ahead by"
				assumed={bench().value('bow.brace_reference') === 'back' ? 1.75 : null}
				slider={false}
			/>{/if}
		<MeasureField path="bow.maker_brace_low_in" label="Maker's lowest" slider={false} />
		<MeasureField path="bow.maker_brace_high_in" label="Maker's highest" slider={false} />
		{#if brace}
			<p class="whole quiet">
				{#each Object.entries(brace.by_reference_in) as [id, value], i (id)}{#if value != null}{i
							? ' · '
							: 'The same string stands '}{reference.text(value, 'brace')} to the {id}{/if}{/each}.
			</p>
		{/if}
	{/snippet}
</Station>

{#snippet listen()}<Lazy of={() => import('$lib/controls/BraceTrials.svelte')} />{/snippet}
{#snippet twists()}
	<Lazy of={() => import('$lib/controls/TwistCounter.svelte')} />
{/snippet}

<style>
	p {
		font-size: 0.9rem;
	}
</style>
