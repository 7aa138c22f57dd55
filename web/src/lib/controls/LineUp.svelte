<script lang="ts">
	import { untrack } from 'svelte';
	import { api, told, type ApiProblem, type Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { latest } from '$lib/bench/latest';
	import { reference } from '$lib/bench/reference.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import LineUpPlate from '$lib/plates/LineUpPlate.svelte';

	/** Bows that could be had, ranked; up to three of them together on the plate. */
	type Offer = Schemas['Candidate'];
	const MOST = 3;
	const bench = useBench();
	const all = $derived(bench().bench.bow_length?.candidates ?? []);
	let shown = $state(6);
	const offers = $derived(all.slice(0, shown));
	const key = (o: { length_in: number; riser_in?: number | null }) =>
		`${o.length_in}/${o.riser_in ?? ''}`;
	let picked = $state<string[] | null>(null);
	/** Until the archer picks, the first two stand there. */
	const picks = $derived(picked ?? all.slice(0, 2).map(key));
	const chosen = $derived(
		picks.map((k) => all.find((o) => key(o) === k)).filter((o): o is Offer => o !== undefined)
	);
	let bows = $state.raw<Schemas['Lined'][]>([]);
	let problem = $state<string | null>(null);
	type Question = { changes: Record<string, unknown>; picks: Schemas['Pick'][] };
	const ask = latest<Question>(async (body, current) => {
		try {
			const params = { path: { id: bench().id } };
			const came = await told(api.POST('/api/rigs/{id}/line-up', { params, body }));
			if (current()) bows = came;
			problem = null;
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	});
	$effect(() => {
		// The bench as last answered, so that a slider's every step is not asked twice over.
		const picks = chosen.map((o) => ({ length_in: o.length_in, riser_in: o.riser_in }));
		ask({ changes: untrack(() => $state.snapshot(bench().changes)), picks });
	});

	function pick(offer: Offer, on: boolean): void {
		const others = picks.filter((k) => k !== key(offer));
		picked = on ? [...others, key(offer)].slice(-MOST) : others;
	}
</script>

<LineUpPlate {bows} />
{#if problem}<p class="wrong" role="alert">{problem}</p>{/if}
<table>
	<thead
		><tr>
			<th scope="col">On the plate</th><th scope="col">Length</th><th scope="col">Built of</th>
			<th scope="col">String angle</th><th scope="col">Reserve</th>
			<th scope="col">Last inch</th><th scope="col">Speed</th><th scope="col">Strung, tip to tip</th
			>
			<th scope="col">Points of 10</th><td></td>
		</tr></thead
	>
	<tbody>
		{#each offers as offer (key(offer))}
			<tr>
				<td data-head="On the plate"
					><label
						><input
							type="checkbox"
							checked={picks.includes(key(offer))}
							aria-label="{reference.text(offer.length_in, 'bow_length')} on the plate"
							onchange={(e) => pick(offer, e.currentTarget.checked)}
						/></label
					></td
				>
				<td data-head="Length"
					><strong><Measure value={{ value: offer.length_in, quantity: 'bow_length' }} /></strong
					></td
				>
				<td data-head="Built of"
					>{#if offer.riser_in}{reference.text(offer.riser_in, 'bow_length')} riser, {offer.limb_class}
						limbs{:else}one piece{/if}</td
				>
				<td data-head="String angle"
					><Measure value={{ value: offer.string_angle_deg, quantity: 'angle' }} /></td
				>
				<td data-head="Reserve"
					>{#if offer.stack_reserve_in == null}never stacks{:else}<Measure
							value={{ value: offer.stack_reserve_in, quantity: 'draw' }}
						/>{/if}</td
				>
				<td data-head="Last inch"
					>+<Measure value={{ value: offer.last_inch_lbf, quantity: 'weight' }} /></td
				>
				<td data-head="Speed"><Measure value={{ value: offer.speed_fps, quantity: 'speed' }} /></td>
				<td data-head="Strung, tip to tip"
					><Measure value={{ value: offer.strung_in, quantity: 'bow_length' }} /></td
				>
				<td data-head="Points of 10"
					>{offer.score.toFixed(1)}
					<span class="quiet"
						>{offer.reasons.join(', ')}{offer.schools_of
							? `; ${offer.schools_for} of ${offer.schools_of} schools`
							: ''}</span
					></td
				>
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
	Ranked for your draw, release, use and the length you lean to, each at the form's usual brace
	height. Last inch and speed: all pulled to your weight with your arrow; speeds are ± 5 %, their
	differences surer.
	{#if shown < all.length}<button class="link" onclick={() => (shown = all.length)}
			>All {all.length}</button
		>{/if}
</p>

<style>
	table {
		width: 100%;
		font-size: 0.9rem;
		margin-top: 0.5rem;
	}
	th {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
		font-size: 0.8rem;
		vertical-align: bottom;
		line-height: 1.15;
	}
	td,
	th {
		padding: 0.2rem 0.7rem 0.2rem 0;
		border-bottom: 1px solid var(--hair);
	}
	td {
		line-height: 1.25;
	}
	label {
		display: inline-flex;
		align-items: center;
		min-width: 24px;
		min-height: 24px;
	}
	input {
		accent-color: var(--heather);
		width: 1rem;
		height: 1rem;
	}
	@media (max-width: 700px) {
		thead {
			display: none;
		}
		tr {
			display: grid;
			grid-template-columns: 1fr 1fr;
			gap: 0.1rem 1rem;
			border-bottom: 1px solid var(--line);
			padding: 0.4rem 0;
		}
		td {
			border: 0;
			padding: 0;
		}
		td[data-head]::before {
			content: attr(data-head) ' ';
			color: var(--quiet);
			font-size: 0.8rem;
			margin-right: 0.3rem;
		}
	}
	p {
		font-size: 0.82rem;
		margin-top: 0.4rem;
	}
	.wrong {
		color: var(--brick);
	}
</style>
