<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { upload } from '$lib/api/upload';
	import { useBench } from '$lib/bench/bench.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import FilePick from './FilePick.svelte';

	/** Crawls or gaps brought along in a table: looked over, then logged line by line. */
	type Line = Schemas['AimLine'];
	const bench = useBench();
	const walks = $derived(bench().bench.crawls?.way === 'crawls');
	const setting = $derived(walks ? 'crawl (mm)' : 'gap (cm)');
	let lines = $state.raw<Line[]>([]);
	let fault = $state('');
	let logged = $state<number | null>(null);

	async function take(file: File): Promise<void> {
		fault = '';
		try {
			lines = await upload<Line[]>(`/api/aim-table?walks=${walks}`, file);
		} catch (error) {
			fault = (error as Error).message;
		}
	}
	/** One after another; what was logged before one is refused stays, the rest waits. */
	async function log(): Promise<void> {
		if (logged !== null) return;
		fault = '';
		logged = 0;
		const all = lines;
		try {
			for (const [n, line] of all.entries()) {
				if (!(await bench().log('crawls', line.trial))) {
					fault = bench().fault ?? 'It was not logged.';
					return;
				}
				lines = all.slice(n + 1);
				logged = n + 1;
			}
		} finally {
			logged = null;
		}
	}
</script>

{#if lines.length}
	<ul>
		{#each lines as line, i (i)}<li><SaidText said={line.said} /></li>{/each}
	</ul>
	<p class="line">
		<button type="button" class="act" disabled={logged !== null} onclick={() => void log()}
			>{lines.length === 1 ? 'Log this line' : `Log these ${lines.length}`}</button
		>
		{#if logged !== null}
			<progress aria-label="Logging" max={lines.length + logged} value={logged}></progress>
		{:else}
			<button type="button" class="link" onclick={() => (lines = [])}>Leave it</button>
		{/if}
	</p>
{:else}
	<p class="line">
		<FilePick
			text="From a table or JSON"
			label="Table of what is known or was shot"
			accept=".csv,.json,text/csv,text/plain,application/json"
			onfile={(file) => void take(file)}
		/>
		<span class="quiet"
			>distance (m), {setting}, and above the spot (cm) where it was shot: a line a distance</span
		>
	</p>
{/if}
{#if fault}<p class="wrong" role="alert">{fault}</p>{/if}

<style>
	ul {
		list-style: none;
		margin: 0.4rem 0;
		padding: 0;
		max-height: 14rem;
		overflow-y: auto;
	}
	li {
		padding: 0.15rem 0;
		border-bottom: 1px solid var(--hair);
	}
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem 1.2rem;
		align-items: center;
		margin: 0.4rem 0;
	}
	.wrong {
		color: var(--brick);
	}
</style>
