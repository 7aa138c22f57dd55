<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import BraceTrials from '$lib/controls/BraceTrials.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import TwistCounter from '$lib/controls/TwistCounter.svelte';
	import Leaves from '$lib/frame/Leaves.svelte';
	import Station from '$lib/frame/Station.svelte';
	import BracePlate from '$lib/plates/BracePlate.svelte';

	const bench = useBench();
	const brace = $derived(bench().bench.brace);
	const elsewhere = $derived(bench().value('bow.brace_reference') !== 'grip');
</script>

<Station id="brace">
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
			<ChoiceField
				path="bow.brace_reference"
				options={[
					['grip', 'grip'],
					['back', 'back'],
					['plunger', 'plunger']
				]}
			/>
		</div>
		{#if elsewhere}<MeasureField
				path="bow.brace_offset_in"
				label="Reference ahead by"
				assumed={bench().value('bow.brace_reference') === 'back' ? 1.75 : null}
				slider={false}
			/>{/if}
		<MeasureField path="bow.maker_brace_low_in" label="Maker's lowest" slider={false} />
		<MeasureField path="bow.maker_brace_high_in" label="Maker's highest" slider={false} />
	{/snippet}
	{#snippet more()}
		<Leaves
			leaves={[
				{ id: 'listen', title: 'Listen', body: listen },
				{ id: 'twists', title: 'Twists', body: twists }
			]}
		/>
	{/snippet}
</Station>

{#snippet listen()}<BraceTrials />{/snippet}
{#snippet twists()}<TwistCounter />{/snippet}
