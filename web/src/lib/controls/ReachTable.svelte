<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import Measure from '$lib/format/Measure.svelte';

	/** The bow at hand an inch under, at, and over the archer's draw. */
	const bench = useBench();
	const rows = $derived(bench().bench.bow_length?.reach ?? []);
	const words: Record<string, [string, string]> = {
		hardly_worked: ['limbs hardly worked', 'quiet'],
		comfortable: ['comfortable', 'moss'],
		near_stack: ['less than the reserve you want', 'ochre'],
		stacks: ['stacks', 'ochre'],
		overdrawn: ['overdrawn: do not', 'brick'],
		past_end: ['past what it allows: never', 'brick']
	};
</script>

<table>
	<thead
		><tr>
			<th scope="col">Draw</th><th scope="col">Weight</th><th scope="col">Over yours</th>
			<th scope="col">Each inch there</th><th scope="col">String angle</th><th scope="col">It is</th
			>
		</tr></thead
	>
	<tbody>
		{#each rows as row, i (i)}
			{@const [word, colour] = words[row.region] ?? ['', 'quiet']}
			<tr class:own={row.more_lbf === 0}>
				<td
					><Measure value={{ value: row.draw_in, quantity: 'draw' }} />{row.more_lbf === 0
						? ', yours'
						: ''}</td
				>
				{#if row.weight_lbf != null && row.more_lbf != null && row.slope_lbf_per_in != null && row.angle_deg != null}
					<td><Measure value={{ value: row.weight_lbf, quantity: 'weight' }} /></td>
					<td
						>{row.more_lbf > 0 ? '+' : ''}<Measure
							value={{ value: row.more_lbf, quantity: 'weight' }}
						/></td
					>
					<td><Measure value={{ value: row.slope_lbf_per_in, quantity: 'weight' }} /></td>
					<td><Measure value={{ value: row.angle_deg, quantity: 'angle' }} /></td>
				{:else}
					<td colspan="4" class="quiet">not computed past its end</td>
				{/if}
				<td style:color="var(--{colour})" style:font-weight="600">{word}</td>
			</tr>
		{/each}
	</tbody>
</table>

<style>
	table {
		width: 100%;
		font-size: 0.93rem;
		margin-bottom: 0.8rem;
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
	.own td {
		font-weight: 700;
	}
</style>
