<script lang="ts">
	import { tick } from 'svelte';
	import { invalidate } from '$app/navigation';
	import { api, told } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { whole } from '$lib/format/measure';
	import SaidText from '$lib/format/SaidText.svelte';

	/** The logbook: everything that was set on this rig, as sentences, the latest first. */
	const bench = useBench();
	let { data } = $props();
	/** Earlier pages, as far as one looked. */
	let earlier = $state.raw<typeof data.lines>([]);
	let asking = $state(false);
	let button = $state<HTMLButtonElement>();
	let list = $state<HTMLOListElement>();
	let fault = $state('');
	const lines = $derived([...data.lines, ...earlier]);
	const oldest = $derived(lines.at(-1)?.seq ?? 1);
	const count = $derived(data.lines[0]?.seq ?? 0);
	let seen = bench().kept.seq;
	const stations = $derived(
		Object.fromEntries((reference.catalog?.stations ?? []).map((s) => [s.id, s.title]))
	);

	$effect(() => {
		const { seq } = bench().kept;
		if (seq !== seen) {
			earlier = [];
			void invalidate('rig:kept');
		}
		seen = seq;
	});

	async function more(): Promise<void> {
		if (asking || oldest <= 1) return;
		asking = true;
		fault = '';
		const params = { path: { id: bench().id }, query: { before: oldest } };
		try {
			const page = await told(api.GET('/api/rigs/{id}/history', { params }));
			const held = document.activeElement === button;
			earlier = [...earlier, ...page];
			await tick();
			// The last page takes the button away: the keyboard goes on from the lines.
			if (held && oldest <= 1) list?.focus({ preventScroll: true });
		} catch (error) {
			fault = (error as Error).message;
		} finally {
			asking = false;
		}
	}

	/** The next page comes as the end of this one comes into sight. */
	const whenSeen = (from: number) => (node: HTMLElement) => {
		const eye = new IntersectionObserver(
			(seen) => from > 1 && seen.some((s) => s.isIntersecting) && more(),
			{
				rootMargin: '300px'
			}
		);
		eye.observe(node);
		return () => eye.disconnect();
	};

	function day(at: string): string {
		return new Date(at).toLocaleDateString('en-GB', {
			day: 'numeric',
			month: 'long',
			year: 'numeric'
		});
	}
	function time(at: string): string {
		return new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
	}
</script>

<svelte:head><title>Logbook · {bench().bench.rig.name} · Lyrandis</title></svelte:head>

<h1>What changed, and why?</h1>
<p class="answer">
	{#if count}
		<strong>{whole(count)}</strong> entr{count === 1 ? 'y' : 'ies'} since this rig was made; nothing is
		ever taken out.
	{:else}
		Nothing was kept yet. Change something at a station and press Keep this.
	{/if}
</p>
{#if bench().fault}<p class="fault" role="alert">{bench().fault}</p>{/if}
<p class="deeds">
	<button
		class="act plain"
		disabled={!bench().kept.undoable || bench().dirty}
		onclick={() => bench().undo()}>Take back the last<kbd>Ctrl+Z</kbd></button
	>
	<button
		class="act plain"
		disabled={!bench().kept.redoable || bench().dirty}
		onclick={() => bench().redo()}>Do it again</button
	>
	<a class="link" href="/api/rigs/{bench().id}/file" download>Rig as a file</a>
	<a class="link" href="/api/rigs/{bench().id}/sheet" target="_blank" rel="noopener">Print sheet</a>
</p>
<ol bind:this={list} tabindex="-1" aria-label="Entries">
	{#each lines as line, i (line.seq)}
		{#if i === 0 || day(lines[i - 1]!.at) !== day(line.at)}<li class="day">
				{day(line.at)}{#if line.seq < bench().kept.seq}<a
						class="link"
						href="/rig/{bench().id}/beside?seq={line.seq}"
						>beside now<span class="sr-only">, as it stood on {day(line.at)}</span></a
					>{/if}
			</li>{/if}
		<li id="entry-{line.seq}">
			<span class="quiet num">{time(line.at)}</span>
			<span><SaidText said={line.said} strong /></span>
			<span class="quiet"
				>{line.station ? stations[line.station] : ''}{line.standing
					? `, ${line.standing}`
					: ''}</span
			>
		</li>
	{/each}
</ol>
{#if oldest > 1}
	<!-- Looked at anew for each page; the button stays, and with it the focus. -->
	<p class="more" {@attach whenSeen(oldest)}>
		<button bind:this={button} class="act plain" onclick={more}>Earlier entries</button>
		<span class="quiet">{whole(oldest - 1)} more</span>
		{#if fault}<span class="fault" role="alert">{fault}</span>{/if}
	</p>
{/if}

<style>
	h1 {
		font-size: 2.05rem;
	}
	.answer {
		font-size: 1.06rem;
		margin: 0.3rem 0 0.8rem;
	}
	.fault {
		color: var(--brick);
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 1.2rem;
		align-items: center;
		margin-bottom: 1rem;
	}
	ol {
		list-style: none;
		padding: 0;
		max-width: 60rem;
	}
	li {
		display: grid;
		grid-template-columns: 3.6rem 1fr 11rem;
		gap: 1rem;
		padding: 0.4rem 0;
		border-bottom: 1px solid var(--hair);
	}
	@media (max-width: 700px) {
		li {
			grid-template-columns: 3.6rem 1fr;
			row-gap: 0.1rem;
		}
		li > :last-child {
			grid-column: 2;
		}
	}
	.more {
		display: flex;
		gap: 1rem;
		align-items: center;
		padding: 1rem 0 2rem;
	}
	.day {
		display: block;
		font-family: var(--slab);
		font-weight: 600;
		padding-top: 1rem;
		border-bottom-color: var(--ink);
	}
</style>
