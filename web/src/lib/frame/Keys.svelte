<script lang="ts">
	import { jumps } from './keys';
	import Sheet from './Sheet.svelte';

	let { open = $bindable(false) }: { open: boolean } = $props();
	const general: [string, string][] = [
		['[  ]', 'the station before, the next'],
		['t', 'to this station’s trial'],
		['k', 'keep this'],
		['Esc', 'back to what is kept'],
		['Ctrl+Z', 'take back what was kept last'],
		['Ctrl+Shift+Z', 'do it again'],
		['p', 'print the rig sheet'],
		['u', 'units and light'],
		['?', 'these keys'],
		['↑ ↓', 'in a field: one step up or down']
	];
</script>

<Sheet bind:open title="Keys">
	<table>
		<tbody>
			{#each general as [key, does] (key)}<tr><th scope="row">{key}</th><td>{does}</td></tr>{/each}
			{#each jumps as [letter, , title] (letter)}
				<tr><th scope="row">g {letter}</th><td>go to {title}</td></tr>
			{/each}
		</tbody>
	</table>
</Sheet>

<style>
	table {
		columns: 2;
	}
	th {
		text-align: left;
		font-family: var(--mono);
		font-weight: 600;
		padding: 0.15rem 1.4rem 0.15rem 0;
		white-space: nowrap;
	}
</style>
