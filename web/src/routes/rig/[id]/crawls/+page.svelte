<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ChoiceField from '$lib/controls/ChoiceField.svelte';
	import DistancesField from '$lib/controls/DistancesField.svelte';
	import MeasureField from '$lib/controls/MeasureField.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import Station from '$lib/frame/Station.svelte';
	import CrawlPlate from '$lib/plates/CrawlPlate.svelte';

	const bench = useBench();
	let chosen = $state(20);
	const crawls = $derived(bench().bench.crawls);
	const sloped = $derived((bench().bench.rig.aim.slope_deg ?? 0) !== 0);
</script>

<Station id="crawls">
	{#snippet plate()}
		<CrawlPlate bind:chosen />
		{#if crawls}
			<div class="scroll">
				<table>
					<thead>
						<tr>
							<th scope="row">Distance</th>
							{#each crawls.rows as row (row.distance_m)}
								<th scope="col" class:here={row.distance_m === chosen}>
									<button onclick={() => (chosen = row.distance_m)}
										>{reference.text(row.distance_m, 'distance', false)}</button
									>
								</th>
							{/each}
							<td class="quiet">{reference.unit('distance').label}</td>
						</tr>
					</thead>
					<tbody>
						<tr>
							<th scope="row">Crawl</th>
							{#each crawls.rows as row (row.distance_m)}
								<td class="crawl" class:here={row.distance_m === chosen}>
									{#if row.crawl_mm != null}<Measure
											value={{ value: row.crawl_mm, quantity: 'crawl' }}
											unit={false}
										/>{:else}<span class="quiet">–</span>{/if}
								</td>
							{/each}
							<td class="quiet">{reference.unit('crawl').label}</td>
						</tr>
						<tr class="quiet">
							<th scope="row">±</th>
							{#each crawls.rows as row, i (row.distance_m)}<td
									class:here={row.distance_m === chosen}
									><Measure
										value={{ value: crawls.plus_minus_mm[i] ?? 0, quantity: 'crawl' }}
										unit={false}
									/></td
								>{/each}
							<td>{reference.unit('crawl').label}</td>
						</tr>
						<tr>
							<th scope="row">Tab marks</th>
							{#each crawls.rows as row (row.distance_m)}<td class:here={row.distance_m === chosen}
									>{row.stitches?.toFixed(1) ?? '–'}</td
								>{/each}
							<td></td>
						</tr>
						<tr>
							<th scope="row">Fingers</th>
							{#each crawls.rows as row (row.distance_m)}<td class:here={row.distance_m === chosen}
									>{row.fingers?.toFixed(1) ?? '–'}</td
								>{/each}
							<td></td>
						</tr>
						{#if crawls.rows.some((r) => r.hold_over_cm != null)}
							<tr>
								<th scope="row">Hold over</th>
								{#each crawls.rows as row (row.distance_m)}<td
										class:here={row.distance_m === chosen}
										>{row.hold_over_cm != null
											? reference.text(row.hold_over_cm, 'spot', false)
											: '–'}</td
									>{/each}
								<td class="quiet">{reference.unit('spot').label}</td>
							</tr>
						{/if}
						<tr class="quiet">
							<th scope="row">Good from</th>
							{#each crawls.rows as row (row.distance_m)}<td class:here={row.distance_m === chosen}
									>{reference.text(row.near_m, 'distance', false)}</td
								>{/each}
							<td>{reference.unit('distance').label}</td>
						</tr>
						<tr class="quiet">
							<th scope="row">to</th>
							{#each crawls.rows as row (row.distance_m)}<td class:here={row.distance_m === chosen}
									>{reference.text(row.far_m, 'distance', false)}</td
								>{/each}
							<td>{reference.unit('distance').label}</td>
						</tr>
						{#if sloped}
							<tr>
								<th scope="row">Shoots like</th>
								{#each crawls.rows as row (row.distance_m)}<td
										class:here={row.distance_m === chosen}
										>{reference.text(row.level_distance_m, 'distance', false)}</td
									>{/each}
								<td class="quiet">{reference.unit('distance').label}</td>
							</tr>
						{/if}
					</tbody>
				</table>
			</div>
		{/if}
	{/snippet}
	{#snippet controls()}
		<div class="wide">
			<ChoiceField
				path="archer.anchor"
				also={(a) => ({ 'archer.eye_above_nock_mm': reference.catalog?.eye_above_nock_mm[a] })}
			/>
		</div>
		<MeasureField path="archer.eye_above_nock_mm" low={50} high={150} step={1} />
		<MeasureField path="aim.slope_deg" low={-30} high={30} step={1} />
		<MeasureField path="aim.spot_half_height_cm" low={1} high={30} step={0.5} />
		<DistancesField />
		<MeasureField path="archer.finger_width_mm" slider={false} />
		<MeasureField path="archer.stitch_pitch_mm" label="Tab marks" slider={false} />
	{/snippet}
</Station>

<style>
	.scroll {
		overflow-x: auto;
		margin-top: 0.5rem;
	}
	table {
		width: 100%;
		font-size: 0.92rem;
	}
	th,
	td {
		text-align: right;
		padding: 0.14rem 0.35rem;
	}
	thead th {
		border-bottom: 1px solid var(--line);
		font-weight: 600;
	}
	thead td {
		border-bottom: 1px solid var(--line);
	}
	tbody th,
	thead th:first-child {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
		padding-left: 0;
		white-space: nowrap;
	}
	.crawl {
		font-weight: 700;
		font-size: 1.06rem;
	}
	.here {
		background: var(--heather-wash);
	}
	thead button {
		background: none;
		border: 0;
		color: inherit;
		font-weight: 600;
		cursor: pointer;
		padding: 0 0.1rem;
	}
</style>
