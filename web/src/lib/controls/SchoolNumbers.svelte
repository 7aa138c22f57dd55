<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { same } from '$lib/bench/paths';
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureField from './MeasureField.svelte';

	/** The schools' numbers: the usual ones until the archer holds other ones. */
	const bench = useBench();
	const usual = $derived((reference.catalog?.fresh_rig.schools ?? {}) as Record<string, number>);
	const own = $derived(
		Object.keys(usual).filter((n) => !same(bench().value(`schools.${n}`), usual[n]))
	);

	function reset(): void {
		bench().setAll(Object.fromEntries(own.map((n) => [`schools.${n}`, usual[n]])));
	}
</script>

<details>
	<summary class="link">
		The schools' numbers{own.length > 0 ? `: ${own.length} of your own` : ''}
	</summary>
	<p class="quiet">
		Rules of thumb differ. Set the numbers you hold to; they are kept with this rig.
		{#if own.length > 0}<button class="link" onclick={reset}>Back to the usual numbers</button>{/if}
	</p>
	<div class="grid">
		{#each Object.keys(usual) as name (name)}
			<MeasureField path="schools.{name}" slider={false} />
		{/each}
	</div>
</details>

<style>
	details {
		margin-top: 0.8rem;
	}
	.grid {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
		gap: 0.4rem 1.3rem;
		margin-top: 0.6rem;
	}
	p {
		font-size: 0.85rem;
		margin-top: 0.3rem;
	}
</style>
