<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { putBench, type RigBench } from '$lib/bench/bench.svelte';
	import ArrowPlate from '$lib/plates/ArrowPlate.svelte';
	import CrawlPlate from '$lib/plates/CrawlPlate.svelte';
	import ForceDrawPlate from '$lib/plates/ForceDrawPlate.svelte';
	import GapPlate from '$lib/plates/GapPlate.svelte';

	/** The stations' own plates, the other side in the place of what is kept. */
	let { view, which }: { view: Schemas['BesideView']; which: string } = $props();
	let chosen = $state(20);
	const sides = $derived({
		bench: view.mine.bench,
		keptBench: view.other.bench,
		dirty: true,
		live: []
	});
	putBench(() => sides as unknown as RigBench);
	const part = $derived(
		{ force: 'force_draw', speed: 'shot', crawls: 'crawls' }[which] as
			'force_draw' | 'shot' | 'crawls'
	);
	/** How each side aims, where it can be told; one crawl and none are drawn alike. */
	const ways = $derived(
		[view.mine, view.other].map((side) => side.bench.crawls?.way.replace('one', 'gaps'))
	);
	const missing = $derived(
		[view.mine, view.other].filter((side) => side.bench[part] === null).map((side) => side.title)
	);
</script>

{#if missing.length}<p class="quiet">
		{missing.join(' and ')}: this cannot be told as it stands; its stations say why.
	</p>{/if}
{#if which === 'force'}<ForceDrawPlate />
{:else if which === 'speed'}<ArrowPlate still />
{:else}
	{#if ways[0] && ways[1] && ways[0] !== ways[1]}<p class="quiet">
			One walks the string and the other holds gaps: only {view.mine.title} is drawn.
		</p>{/if}
	{#if (ways[0] ?? 'crawls') === 'crawls'}<CrawlPlate bind:chosen />
	{:else}<GapPlate {chosen} onchoose={(distance) => (chosen = distance)} />{/if}
{/if}
