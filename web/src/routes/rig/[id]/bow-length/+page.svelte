<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import SchoolNumbers from '$lib/controls/SchoolNumbers.svelte';
	import SelectField from '$lib/controls/SelectField.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import Station from '$lib/frame/Station.svelte';
	import BowLengthPlate from '$lib/plates/BowLengthPlate.svelte';
	import LengthMapPlate from '$lib/plates/LengthMapPlate.svelte';

	const bench = useBench();
	const offers = $derived((bench().bench.bow_length?.candidates ?? []).slice(0, 6));
	const form = $derived(bench().value('bow.form'));
	const forms = $derived(
		Object.values(reference.catalog?.forms ?? {}).map((f): [string, string] => [f.id, f.title])
	);
	const riser = $derived(bench().bench.force_draw?.drawing.riser_in ?? null);

	/** Another form begins at its own ordinary starts. */
	const usual = (id: string): Record<string, unknown> => reference.catalog?.forms[id]?.start ?? {};
</script>

<Station id="bow-length">
	{#snippet plate()}<BowLengthPlate />{/snippet}
	{#snippet controls()}
		<div class="three"><ChoiceField path="bow.form" options={forms} also={usual} /></div>
		{#if form === 'recurve'}<div class="wide">
				<ChoiceField
					path="bow.takedown"
					label="Built as"
					options={[
						['true', 'takedown'],
						['false', 'one piece']
					]}
				/>
			</div>{/if}
		<MeasureField path="bow.length_in" step={1} />
		<MeasureField path="bow.riser_in" assumed={riser} low={8} high={29} step={0.5} />
		<SelectField
			path="use"
			options={[
				['close_cover', 'close cover'],
				['woodland', 'woodland'],
				['range', 'range'],
				['backyard', 'back yard']
			]}
		/>
		<MeasureField path="taste" label="Taste, −1 to +1" step={0.1} />
		{#if form === 'static_tip'}<SelectField
				path="bow.tips"
				options={[
					['working', 'working'],
					['short', 'short static'],
					['long', 'long static'],
					['heavy', 'heavy static']
				]}
			/>{/if}
	{/snippet}
	{#snippet more()}
		<h2>Bows you could take</h2>
		<table>
			<thead
				><tr
					><th scope="col">Length</th><th scope="col">Built of</th><th scope="col">String angle</th
					><th scope="col">Reserve before stack</th><th scope="col">Points of 10</th><th scope="col"
						>Why</th
					><th></th></tr
				></thead
			>
			<tbody>
				{#each offers as offer (`${offer.length_in}/${offer.riser_in}`)}
					<tr>
						<td><Measure value={{ value: offer.length_in, quantity: 'bow_length' }} /></td>
						<td
							>{#if offer.riser_in}{reference.text(offer.riser_in, 'bow_length')} riser, {offer.limb_class}
								limbs{:else}one piece{/if}</td
						>
						<td><Measure value={{ value: offer.string_angle_deg, quantity: 'angle' }} /></td>
						<td
							>{#if offer.stack_reserve_in == null}never stacks{:else}<Measure
									value={{ value: offer.stack_reserve_in, quantity: 'draw' }}
								/>{/if}</td
						>
						<td>{offer.score.toFixed(1)}</td>
						<td class="quiet">{offer.reasons.join(', ')}</td>
						<td
							><button
								class="link"
								onclick={() =>
									bench().setAll({
										'bow.length_in': offer.length_in,
										'bow.riser_in': offer.riser_in
									})}>Try</button
							></td
						>
					</tr>
				{/each}
			</tbody>
		</table>
		<p class="quiet">
			Ranked for your draw, release, use and taste, each at the form's usual brace height.
		</p>
		<SchoolNumbers />
		<h2 class="map">Where you stand</h2>
		<LengthMapPlate />
	{/snippet}
</Station>

<style>
	h2 {
		font-size: 1.1rem;
		font-weight: 600;
	}
	.map {
		margin-top: 1.1rem;
	}
	table {
		width: 100%;
		font-size: 0.92rem;
	}
	th {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
		font-size: 0.82rem;
	}
	td,
	th {
		padding: 0.2rem 0.8rem 0.2rem 0;
		border-bottom: 1px solid var(--hair);
	}
	p {
		font-size: 0.82rem;
		margin-top: 0.4rem;
	}
</style>
