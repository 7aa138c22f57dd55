<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import Measure from '$lib/format/Measure.svelte';

	/** The numbers of both sides; those that differ by a step one could notice stand out. */
	interface Props {
		numbers: Schemas['NumberBeside'][];
		here: string;
		there: string;
	}
	let { numbers, here, there }: Props = $props();
	const about = (source: string): boolean => source === 'model' || source === 'rule';
</script>

<table>
	<thead>
		<tr>
			<td></td>
			<th scope="col">{here}</th>
			<th scope="col">{there}</th>
			<th scope="col"><span class="sr-only">Whether it differs</span></th>
		</tr>
	</thead>
	<tbody>
		{#each numbers as row (row.id)}
			<tr class:felt={row.felt}>
				<th scope="row">{row.title}</th>
				{#each [[row.mine, row.mine_source], [row.other, row.other_source]] as const as [value, source], i (i)}
					<td
						>{#if value}{#if about(source)}<span class="quiet" aria-hidden="true">~</span
								>{/if}<Measure {value} /><span class="sr-only"
								>, {about(source) ? 'estimated' : source}</span
							>{:else}<span class="quiet">cannot be told</span>{/if}</td
					>
				{/each}
				<td class="verdict"
					>{#if row.felt}differs{:else}<span class="quiet">alike</span>{/if}</td
				>
			</tr>
		{/each}
	</tbody>
</table>
<p class="quiet">
	A ~ marks an estimate. Two estimates by one model are off the same way: their difference is surer
	than either.
</p>

<style>
	table {
		width: 100%;
		max-width: 52rem;
	}
	th,
	td {
		text-align: left;
		padding: 0.3rem 1.2rem 0.3rem 0;
		border-bottom: 1px solid var(--hair);
		font-weight: 400;
		vertical-align: baseline;
	}
	thead th {
		font-family: var(--slab);
		font-weight: 600;
	}
	tbody th {
		color: var(--quiet);
	}
	.felt td {
		font-weight: 600;
	}
	.felt .verdict {
		color: var(--heather);
	}
	p {
		font-size: 0.85rem;
		margin-top: 0.5rem;
	}
</style>
