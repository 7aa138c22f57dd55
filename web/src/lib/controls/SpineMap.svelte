<script lang="ts">
	import { onMount } from 'svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { Mapped } from '$lib/bench/spineMap.svelte';
	import SpineMapPlate from '$lib/plates/SpineMapPlate.svelte';

	/** The spine map of this bow, drawn when it is looked at, and what could be done to this shaft. */
	const bench = useBench();
	const mapped = new Mapped(bench);
	const map = $derived(mapped.told);
	const length = $derived(bench().value('arrow.shaft_length_in') as number);
	const point = $derived(bench().value('arrow.point_gr') as number);
	const cut = $derived(
		map?.cut_to_in != null && map.cut_to_in < length - 0.05
			? Math.round(map.cut_to_in * 8) / 8
			: null
	);
	const other = $derived(
		map?.point_for_gr != null && Math.abs(map.point_for_gr - point) >= 2.5
			? Math.round(map.point_for_gr / 5) * 5
			: null
	);
	onMount(() => {
		void mapped.draw();
		return () => mapped.stop();
	});
</script>

{#if mapped.busy}
	<p class="line" role="status">
		Every length and point is shot past this bow.
		<progress max="1" value={mapped.share ?? undefined} aria-label="Drawing the map"></progress>
		<button type="button" class="link" onclick={() => mapped.stop()}>Stop</button>
	</p>
{:else if mapped.stale}
	<p class="line">
		The rig was changed since this map was drawn.
		<button type="button" class="act" onclick={() => void mapped.draw()}>Draw it anew</button>
	</p>
{/if}
{#if mapped.problem && !mapped.busy}
	<p class="line">
		<span role="alert">{mapped.problem}</span>
		<button type="button" class="link" onclick={() => void mapped.draw()}>Draw it again</button>
	</p>
{/if}
{#if map}
	<SpineMapPlate {map} />
	<p class="quiet">
		Each line is one spine: where it crosses your length and point, that spine leaves this bow clean
		by the model. The band is where your own shaft lies in its window{#if map.flat.length}; hatched,
			so little changes that a wide range of spines leaves alike{/if}. Cutting goes to the left, and
		never back: cut by steps and read.
	</p>
	<p class="line">
		{#if cut !== null}<button
				type="button"
				class="act plain"
				onclick={() => bench().set('arrow.shaft_length_in', cut)}
				>See it cut to {reference.text(cut, 'draw')}</button
			>{/if}
		{#if other !== null}<button
				type="button"
				class="act plain"
				onclick={() => bench().set('arrow.point_gr', other)}
				>See it with a point of {reference.text(other, 'mass')}</button
			>{/if}
		{#if cut === null && other === null}<span class="quiet"
				>No cut and no other point on this map brings this shaft nearer.</span
			>{/if}
	</p>
{/if}
