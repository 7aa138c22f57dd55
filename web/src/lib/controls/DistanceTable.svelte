<script module lang="ts">
	/** A line of a table over distances: what it is called, and its text for a row. */
	export interface Line<Row> {
		title: string;
		quantity?: string;
		kind?: 'main' | 'quiet';
		of: (row: Row, at: number) => string;
	}
</script>

<script lang="ts" generics="Row extends { distance_m: number }">
	import { reference } from '$lib/bench/reference.svelte';
	import { screen } from '$lib/frame/window.svelte';

	/** Numbers over distances: distances across, or down where the screen is narrow. */
	interface Props {
		rows: readonly Row[];
		lines: Line<Row>[];
		chosen: number;
	}
	let { rows, lines, chosen = $bindable() }: Props = $props();

	const unit = (line: Line<Row>) => (line.quantity ? reference.unit(line.quantity).label : '');
	const distance = (row: Row) => reference.text(row.distance_m, 'distance', false);
</script>

{#snippet pick(row: Row)}
	<button aria-pressed={row.distance_m === chosen} onclick={() => (chosen = row.distance_m)}
		>{distance(row)}</button
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
				{#each rows as row, i (row.distance_m)}
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
					{#each rows as row (row.distance_m)}
						<th scope="col" class:here={row.distance_m === chosen}>{@render pick(row)}</th>
					{/each}
					<td class="quiet">{reference.unit('distance').label}</td>
				</tr>
			</thead>
			<tbody>
				{#each lines as line (line.title)}
					<tr class={line.kind}>
						<th scope="row">{line.title}</th>
						{#each rows as row, i (row.distance_m)}
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
		white-space: nowrap;
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
