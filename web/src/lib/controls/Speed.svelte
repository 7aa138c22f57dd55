<script lang="ts">
	import Chronograph from './Chronograph.svelte';
	import Marks from './Marks.svelte';

	/** How fast the arrow goes: by a chronograph, or by where arrows landed. */
	let by = $state<'chronograph' | 'marks'>('chronograph');
</script>

<div class="by" role="group" aria-label="How the speed is told">
	<label><input type="radio" bind:group={by} value="chronograph" /> by a chronograph</label>
	<label><input type="radio" bind:group={by} value="marks" /> by where arrows landed</label>
</div>
{#if by === 'chronograph'}<Chronograph />{:else}<Marks />{/if}

<style>
	.by {
		display: flex;
		flex-wrap: wrap;
		gap: 0 1.4rem;
	}
	label {
		display: inline-flex;
		gap: 0.4rem;
		align-items: center;
		min-height: var(--target);
	}
</style>
