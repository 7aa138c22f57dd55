<script lang="ts">
	import { asAiming } from '$lib/bench/aiming.svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureField from './MeasureField.svelte';
	import SelectField from './SelectField.svelte';

	/** Anchors beside one another, a longer arrow, and one crawl for all distances. */
	const bench = useBench();
	const asked = asAiming(bench);
	const told = $derived(asked.told);
	const walks = $derived(bench().bench.crawls?.way !== 'gaps');
	const anchor = (row: NonNullable<typeof told>['anchors'][number]) =>
		row.anchor
			? reference.word('archer.anchor', row.anchor)
			: row.own
				? 'yours, as it is'
				: 'an eye so high';
</script>

{#if asked.problem}
	<p role="alert">{asked.problem}</p>
{:else if !told}
	<p class="quiet" aria-busy="true">One moment …</p>
{:else}
	<div class="scroll">
		<table>
			<thead>
				<tr>
					<th scope="col">Anchor</th>
					<th scope="col">Eye over the arrow nock</th>
					<th scope="col">Point-on</th>
					{#if walks}<th scope="col">Crawl at {reference.text(told.near_m, 'distance')}</th>{/if}
					<th scope="col">Gap at {reference.text(told.gap_at_m, 'distance')} without one</th>
				</tr>
			</thead>
			<tbody>
				{#each told.anchors as row, i (i)}
					<tr class:own={row.own}>
						<th scope="row">{anchor(row)}</th>
						<td>{reference.text(row.told.eye_mm, 'crawl')}</td>
						<td
							>{row.told.point_on_m
								? reference.valueText({ ...row.told.point_on_m, quantity: 'distance' })
								: 'beyond 400 m'}</td
						>
						{#if walks}<td>{reference.text(row.told.largest_crawl_mm, 'crawl')}</td>{/if}
						<td>{reference.text(row.told.gap_20m_cm, 'spot')}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	<p class="quiet">
		The usual heights by their names; archers with the same name for their anchor differ by more
		than a finger. {#if bench().bench.rig.archer.release === 'thumb'}For thumb draws no usual height
			stands here: measure yours, from the eye to the arrow nock, square to the shaft.{/if}
	</p>
	{#if told.nearer_m != null}
		<p>
			A shaft left {reference.text(told.longer_in, 'draw')} longer, all else alike, brings point-on
			<strong>{reference.text(Math.abs(told.nearer_m), 'distance')}</strong>
			{told.nearer_m >= 0 ? 'nearer' : 'farther'} and shows more of the tip.
		</p>
	{/if}
	{#if told.largest_share}
		<p>
			The largest crawl is {reference.text(100 * told.largest_share, 'percent_1')} of the bow’s length;
			{reference.text(1, 'draw')} of a draw of {reference.text(28, 'draw')} is {reference.text(
				100 / 28,
				'percent_1'
			)}.
		</p>
	{/if}
	{#if bench().bench.rig.archer.release === 'three_under'}
		<h2>If your class allows one crawl, or none</h2>
		<div class="fields">
			<SelectField path="aim.allowed" />
			{#if bench().bench.rig.aim.allowed === 'one'}
				<MeasureField path="aim.one_crawl_mm" low={0} high={120} step={1} />
			{/if}
		</div>
		<p>
			One crawl of <strong>{reference.text(told.least_gap.crawl_mm, 'crawl')}</strong> keeps the tip
			within {reference.text(told.least_gap.largest_gap_cm, 'spot')} of the spot at all your distances.
			With the tip always on the mark, {reference.text(told.most_hits.crawl_mm, 'crawl')} hits the most:
			{reference.text(100 * told.most_hits.hits, 'percent')} over these distances.
		</p>
	{/if}
{/if}

<style>
	.scroll {
		overflow-x: auto;
	}
	table {
		width: 100%;
		font-size: 0.93rem;
		margin-bottom: 0.6rem;
	}
	th {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
	}
	thead th {
		font-size: 0.82rem;
	}
	td,
	th {
		padding: 0.25rem 0.8rem 0.25rem 0;
		border-bottom: 1px solid var(--hair);
	}
	.own td,
	.own th {
		font-weight: 700;
		color: var(--ink);
	}
	p {
		margin: 0.5rem 0;
	}
	h2 {
		margin-top: 1rem;
	}
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
		gap: 0.4rem 2rem;
	}
</style>
