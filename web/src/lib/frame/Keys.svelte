<script lang="ts">
	import { deeds } from './window.svelte';
	import { jumps } from './keys';
	import Sheet from './Sheet.svelte';

	let { open = $bindable(false) }: { open: boolean } = $props();
	const everywhere: [string, string][] = [
		['u', 'units and light'],
		['g t', 'go to Terms'],
		['g h', 'go to the list of rigs'],
		['?', 'these keys; in a field: what it is']
	];
	const rig: [string, string][] = [
		['[  ]', 'the station before, the next'],
		['t', 'to this station’s trial'],
		['k', 'keep this'],
		['Ctrl+Enter', 'keep this, from inside a field too'],
		['Enter', 'in a field: keep what was typed'],
		['Esc', 'clear what cannot be read; back to what is kept'],
		['Ctrl+Z', 'take back what was kept last'],
		['Ctrl+Shift+Z', 'do it again'],
		['p', 'print the rig sheet'],
		['↑ ↓', 'in a field: one step up or down']
	];
	const lines = $derived([
		...(deeds.page?.walk ? rig : []),
		...everywhere,
		...(deeds.page?.go
			? jumps.map(([letter, , title]): [string, string] => [`g ${letter}`, `go to ${title}`])
			: [])
	]);
</script>

<Sheet bind:open title="Keys">
	<dl>
		{#each lines as [key, does] (key)}
			<div>
				<dt>{key}</dt>
				<dd>{does}</dd>
			</div>
		{/each}
	</dl>
</Sheet>

<style>
	dl {
		columns: 18rem 2;
		column-gap: 2rem;
	}
	div {
		display: grid;
		grid-template-columns: 8rem 1fr;
		break-inside: avoid;
		padding: 0.15rem 0;
	}
	dt {
		font-family: var(--mono);
		font-weight: 600;
		white-space: nowrap;
	}
	dd {
		margin: 0;
	}
</style>
