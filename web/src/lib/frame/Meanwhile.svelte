<script lang="ts">
	import type { Meanwhile } from '$lib/bench/bench.svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { valueAt } from '$lib/bench/paths';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import { settingText } from '$lib/format/setting';
	import Sheet from './Sheet.svelte';

	/** Someone else kept a change while this window was about to: what they did, and what is ours. */
	let { what }: { what: Meanwhile } = $props();

	const bench = useBench();
	const fields = $derived(reference.catalog?.fields ?? {});
	const mine = $derived(
		Object.entries(what.sent).map(([path, value]) => ({
			path,
			title: fields[path]?.title ?? path,
			was: settingText(path, valueAt(bench().kept.rig, path)),
			theirs: settingText(path, valueAt(what.kept.rig, path)),
			ours: settingText(path, value)
		}))
	);
	/** How many were kept beyond those that are listed. */
	const more = $derived(what.kept.seq - bench().kept.seq - what.lines.length);
	const trials = $derived(reference.catalog?.trials ?? {});
</script>

<Sheet bind:open={() => true, (open) => open || what.choose('look')} title="Changed meanwhile">
	<p>Another window kept something on this rig while you were at it. Nothing was overwritten.</p>
	<h3>Kept there</h3>
	<ul>
		{#each what.lines as line (line.seq)}
			<li><SaidText said={line.said} strong /></li>
		{/each}
		{#if more > 0}<li class="quiet">and {more} earlier, in the logbook</li>{/if}
	</ul>
	<h3>Yours, not kept yet</h3>
	<ul>
		{#each mine as change (change.path)}
			<li>
				{change.title}: <strong>{change.ours}</strong>
				<span class="quiet"
					>{change.theirs === change.was
						? `now ${change.theirs}`
						: `there set to ${change.theirs}`}</span
				>
			</li>
		{/each}
		{#if what.mine?.trial}<li>A trial: {trials[what.mine.trial] ?? what.mine.trial}</li>{/if}
		{#if what.mine?.deed}<li>{what.mine.deed}</li>{/if}
		{#if what.mine === null}
			<li>Taking back or doing again: the latest entry is another one now, so look at it first.</li>
		{/if}
	</ul>
	<p class="buttons">
		{#if what.mine !== null}
			<button class="act" onclick={() => what.choose('mine')}>Keep mine on top</button>
		{/if}
		<button class="act plain" onclick={() => what.choose('theirs')}>Take theirs</button>
		{#if mine.length}
			<button class="act plain" onclick={() => what.choose('look')}
				>Look first, keep nothing yet</button
			>
		{/if}
	</p>
</Sheet>

<style>
	h3 {
		font-family: var(--slab);
		font-size: 1.05rem;
		margin: 1rem 0 0.25rem;
	}
	ul {
		list-style: none;
		padding: 0;
		max-height: 11rem;
		overflow-y: auto;
	}
	li {
		padding: 0.25rem 0;
		border-bottom: 1px solid var(--hair);
	}
</style>
