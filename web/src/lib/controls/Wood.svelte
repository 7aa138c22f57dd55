<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import WoodPlate from '$lib/plates/WoodPlate.svelte';
	import MeasureField from './MeasureField.svelte';
	import SelectField from './SelectField.svelte';
	import ShaftReads from './ShaftReads.svelte';

	/** Tapering a wood shaft: its profile, the next inch by what the flight showed, marks to copy. */
	const bench = useBench();
	const wood = $derived(bench().value('arrow.material') === 'wood');
	const shaft = $derived(bench().bench.shaft);
	const gauges = $derived(shaft?.gauges ?? []);
	const cut = $derived(bench().kept.rig.arrow.material === 'wood' && !bench().dirty);
</script>

{#if wood}
	<WoodPlate />
	<div class="fields">
		<MeasureField path="arrow.rear_taper_in" low={0} high={14} />
		<MeasureField path="arrow.rear_end_mm" low={5} high={10} step={0.1} />
		<MeasureField path="arrow.front_taper_in" low={0} high={14} />
		<MeasureField path="arrow.front_end_mm" low={5} high={10} step={0.1} />
		<MeasureField path="arrow.diameter_mm" slider={false} />
		<MeasureField path="arrow.static_spine" label="Spine before" slider={false} />
	</div>
	<ShaftReads offered={['rear_taper', 'front_taper', 'length']} />
	<p class="quiet">
		A jig, which bends the middle, hardly notices tapered ends; the bow, which takes the shaft by
		its end, does. Neither number is a promise: practice lengthens a taper, shoots and reads.
	</p>
	<h3>Copy it onto the set</h3>
	{#if gauges.length}
		<p>
			Thin each shaft to these, measured with callipers: then a set stays within {reference.text(
				shaft!.bears_gr,
				'mass'
			)} and {reference.text(shaft!.bears_spine, 'spine')} of spine.
			{#if cut}<a class="link" href="/api/rigs/{bench().id}/cutting" target="_blank"
					>Cutting marks at true size</a
				>{:else}<span class="quiet">Keep the shaft first, then print its cutting marks.</span>{/if}
		</p>
		<div class="scroll">
			<table>
				<thead
					><tr
						><th scope="col">From the arrow nock</th><th scope="col">Thick</th><th scope="col"
							>May be off by</th
						></tr
					></thead
				>
				<tbody>
					{#each gauges as g (g.at_in)}
						<tr
							><td>{reference.text(g.at_in, 'draw')}</td><td class="num"
								>{g.diameter_mm.toFixed(2)} mm</td
							><td class="num">± {g.tolerance_mm.toFixed(2)} mm</td></tr
						>
					{/each}
				</tbody>
			</table>
		</div>
	{:else}<p class="quiet">Give an end its taper and its thickness: the marks to copy stand here.</p>
	{/if}
{:else}
	<p>
		Tapers and barrels are for solid wood: what they do goes by the fourth power of the thickness,
		which holds for no tube. This set is of {reference
			.word('arrow.material', bench().value('arrow.material'))
			.toLowerCase()}.
	</p>
	<div class="fields"><SelectField path="arrow.material" /></div>
{/if}

<style>
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(7.4rem, 1fr));
		gap: 0.4rem 1.3rem;
	}
	h3 {
		margin: 1rem 0 0.2rem;
		font-size: 1.1rem;
	}
	.scroll {
		max-height: 16rem;
		overflow: auto;
	}
	table {
		width: 100%;
		font-size: 0.93rem;
	}
	th {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
	}
	td,
	th {
		padding: 0.15rem 0.8rem 0.15rem 0;
		border-bottom: 1px solid var(--hair);
	}
</style>
