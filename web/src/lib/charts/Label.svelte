<script lang="ts">
	/** Text of a drawing; fractions in it are set as fractions. */
	let { text }: { text: string } = $props();
	const parts = $derived(text.split(/ ?(\d+\/\d+)/));
</script>

{#each parts as part, i (i)}{#if i % 2 === 0}{part}{:else}{@const [top, bottom] =
			part.split('/')}<tspan dx="1.5" dy="-3.6" font-size="8.6">{top}</tspan><tspan
			dy="3.6"
			font-size="11">/</tspan
		><tspan dy="1" font-size="8.6">{bottom}</tspan><tspan dy="-1">&#8203;</tspan>{/if}{/each}
