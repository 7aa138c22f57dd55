<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import { screen } from '$lib/frame/screen.svelte';

	/** The crawls as numbers: distances across, or down where the screen is narrow. */
	interface Props {
		crawls: Schemas['CrawlsView'];
		sloped: boolean;
		chosen: number;
	}
	let { crawls, sloped, chosen = $bindable() }: Props = $props();

	type Row = Schemas['CrawlsView']['rows'][number];
	interface Line {
		title: string;
		quantity?: string;
		kind?: 'main' | 'quiet';
		of: (row: Row, at: number) => string;
	}
	const bare = (value: number | null | undefined, quantity: string): string =>
		value == null ? '–' : reference.text(value, quantity, false);
	const lines = $derived<Line[]>([
		{ title: 'Crawl', quantity: 'crawl', kind: 'main', of: (r) => bare(r.crawl_mm, 'crawl') },
		{
			title: '±',
			quantity: 'crawl',
			kind: 'quiet',
			of: (_, i) => bare(crawls.plus_minus_mm[i], 'crawl')
		},
		{ title: 'Tab marks', of: (r) => bare(r.stitches, 'marks') },
		{ title: 'Fingers', of: (r) => bare(r.fingers, 'fingers') },
		...(crawls.rows.some((r) => r.hold_over_cm != null)
			? [
					{
						title: 'Hold over',
						quantity: 'spot',
						of: (r: Row) => bare(r.hold_over_cm, 'spot')
					}
				]
			: []),
		{
			title: 'Good from',
			quantity: 'distance',
			kind: 'quiet',
			of: (r) => bare(r.near_m, 'distance')
		},
		{ title: 'to', quantity: 'distance', kind: 'quiet', of: (r) => bare(r.far_m, 'distance') },
		...(sloped
			? [
					{
						title: 'Shoots like',
						quantity: 'distance',
						of: (r: Row) => bare(r.level_distance_m, 'distance')
					}
				]
			: [])
	]);
	const unit = (line: Line) => (line.quantity ? reference.unit(line.quantity).label : '');
</script>

{#snippet pick(row: Row)}
	<button aria-pressed={row.distance_m === chosen} onclick={() => (chosen = row.distance_m)}
		>{bare(row.distance_m, 'distance')}</button
	>
{/snippet}

<div class="scroll">
	{#if screen.folded}
		<table class="down">
			<thead>
				<tr>
					<th scope="col">Distance, {reference.unit('distance').label}</th>
					{#each lines as line (line.title)}
						<th scope="col">{line.title}{unit(line) ? `, ${unit(line)}` : ''}</th>
					{/each}
				</tr>
			</thead>
			<tbody>
				{#each crawls.rows as row, i (row.distance_m)}
					<tr class:here={row.distance_m === chosen}>
						<th scope="row">{@render pick(row)}</th>
						{#each lines as line (line.title)}<td class={line.kind}>{line.of(row, i)}</td>{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	{:else}
		<table>
			<thead>
				<tr>
					<th scope="row">Distance</th>
					{#each crawls.rows as row (row.distance_m)}
						<th scope="col" class:here={row.distance_m === chosen}>{@render pick(row)}</th>
					{/each}
					<td class="quiet">{reference.unit('distance').label}</td>
				</tr>
			</thead>
			<tbody>
				{#each lines as line (line.title)}
					<tr class={line.kind}>
						<th scope="row">{line.title}</th>
						{#each crawls.rows as row, i (row.distance_m)}
							<td class={line.kind} class:here={row.distance_m === chosen}>{line.of(row, i)}</td>
						{/each}
						<td class="quiet">{unit(line)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
</div>

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
		padding: 0.1rem 0.35rem;
	}
	thead th,
	thead td {
		border-bottom: 1px solid var(--line);
		font-weight: 600;
	}
	tbody th,
	thead th:first-child {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
		padding-left: 0;
		white-space: nowrap;
	}
	td.main {
		font-weight: 700;
		font-size: 1.06rem;
	}
	td.quiet {
		color: var(--quiet);
	}
	.here {
		background: var(--heather-wash);
	}
	button {
		background: none;
		border: 0;
		color: var(--ink);
		font-weight: 600;
		cursor: pointer;
		padding: 0 0.1rem;
		min-width: 24px;
		min-height: 24px;
	}
	.down thead th {
		font-size: 0.74rem;
		font-weight: 400;
		color: var(--quiet);
		vertical-align: bottom;
		line-height: 1.15;
		white-space: normal;
	}
	.down td,
	.down th {
		padding: 0 0.3rem;
		border-bottom: 1px solid var(--hair);
	}
	.down button {
		min-width: 44px;
		min-height: 44px;
		text-align: left;
		font-size: 1.06rem;
	}
</style>
