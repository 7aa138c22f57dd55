<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import NockReads from '$lib/controls/NockReads.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Station from '$lib/frame/Station.svelte';
	import { screen } from '$lib/frame/window.svelte';
	import NockPlate from '$lib/plates/NockPlate.svelte';

	const bench = useBench();
</script>

<Station
	id="nock-point"
	leaves={[
		{
			id: 'reads',
			title: 'Reads',
			plate: screen.folded ? undefined : drawn,
			body: reads,
			trial: true
		}
	]}
>
	{#snippet plate()}<NockPlate />{/snippet}
	{#snippet controls()}
		<div class="wide">
			<MeasureField
				path="nock_height_mm"
				assumed={bench().bench.nock?.start_mm}
				low={-5}
				high={32}
				step={0.5}
			/>
		</div>
		<SelectField path="nocking.school" />
		<SelectField path="nocking.fit" />
		<SelectField path="nocking.grip_line" />
	{/snippet}
</Station>

{#snippet drawn()}<NockPlate />{/snippet}
{#snippet reads()}
	<NockReads />
	{#if screen.folded}<NockPlate />{/if}
{/snippet}
