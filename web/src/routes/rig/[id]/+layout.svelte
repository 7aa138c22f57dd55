<script lang="ts">
	import { onDestroy } from 'svelte';
	import { goto, invalidate } from '$app/navigation';
	import { page } from '$app/state';
	import { putBench, type RigBench } from '$lib/bench/bench.svelte';
	import { notify, tellOfSheet } from '$lib/bench/notice.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Findings from '$lib/frame/Findings.svelte';
	import { askBeforeLeaving } from '$lib/frame/leave.svelte';
	import Hatch from '$lib/frame/Hatch.svelte';
	import KeepBar from '$lib/frame/KeepBar.svelte';
	import { deeds, screen } from '$lib/frame/window.svelte';
	import Rail from '$lib/frame/Rail.svelte';
	import Tally from '$lib/frame/Tally.svelte';

	let { children, data } = $props();
	const bench = $derived(data.bench);
	const PATIENCE_MS = 3000;
	let bar = $state<KeepBar>();

	const id = $derived(Number(page.params.id));
	const station = $derived(page.url.pathname.split('/')[3] ?? 'draw');
	const view = $derived(bench?.bench.stations.find((s) => s.station === station));
	putBench(() => bench as RigBench);
	onDestroy(() => {
		if (bench) bench.shut = true;
		deeds.page = null;
	});

	const leaving = askBeforeLeaving({
		// What is on its way to be kept is not lost by going on.
		waiting: () => (bench?.dirty && !bench.busy) ?? false,
		keep: async () =>
			(await bench?.keep(view ? station : (bench.proposed?.station ?? null), '', 'provisional')) ??
			false,
		drop: () => bench?.revert()
	});

	async function back(redo: boolean): Promise<void> {
		if (!bench || bench.dirty) return;
		const said = redo ? bench.kept.redoable : bench.kept.undoable;
		if (!said)
			return notify(redo ? 'There is nothing to do again.' : 'There is nothing to take back.');
		const text = reference.said(said);
		if (await (redo ? bench.redo() : bench.undo()))
			notify(`${redo ? 'Did again' : 'Took back'}: ${text}`);
	}

	function walk(step: 1 | -1): void {
		const stations = bench?.route ?? [];
		const here = stations.findIndex((s) => s.id === station);
		const next = stations[here + step];
		if (next) void goto(`/rig/${id}/${next.id}`);
	}

	/** The station's own trial: its leaf is turned to, and its first field is at hand. */
	async function trial(): Promise<void> {
		const first = () => document.querySelector<HTMLElement>('main [data-trial]');
		const leaf = document.querySelector<HTMLElement>('main [data-trial-leaf]');
		const coming = () => leaf || document.querySelector('main [aria-busy=true]');
		if (!first()) leaf?.click();
		// The leaf, or what is on it, may have to come first.
		for (let waited = 0; !first() && coming() && waited < PATIENCE_MS; waited += 20)
			await new Promise((done) => setTimeout(done, 20));
		const found = first();
		if (found) found.focus();
		else notify('This station has no trials.');
	}

	deeds.page = {
		go: (path) => {
			const title = reference.catalog?.stations.find((s) => s.id === path)?.title;
			if (title && !bench?.route.some((s) => s.id === path))
				notify(`This bow's route does not pass ${title}. Another one is chosen at Bow length.`);
			else void goto(`/rig/${id}/${path}`);
		},
		walk,
		keep: () => bar?.keep(),
		revert: () => bench?.dirty && bench.revert(),
		undo: () => void back(false),
		redo: () => void back(true),
		print: () => {
			tellOfSheet(bench?.dirty ?? false);
			window.open(`/api/rigs/${id}/sheet`, '_blank', 'noopener');
		},
		trial: () => void trial()
	};
</script>

<Hatch />
{#if data.shut !== null}
	{#await import('$lib/frame/ShutRig.svelte') then { default: ShutRig }}
		<ShutRig {id} reason={data.shut} onOpened={() => invalidate('rig:open')} />
	{/await}
{:else if bench}
	{#key bench}
		<div class="frame" class:plain={!view}>
			<div class="rail">
				<Rail />
			</div>
			<main id="main" tabindex="-1">{@render children()}</main>
			{#if view && !screen.folded}<div class="findings"><Findings station={view} /></div>{/if}
			<footer>
				<Tally />
				<KeepBar bind:this={bar} station={view ? station : (bench.proposed?.station ?? null)} />
			</footer>
		</div>
	{/key}
{/if}

{#if bench?.meanwhile}{#await import('$lib/frame/Meanwhile.svelte') then { default: Meanwhile }}
		<Meanwhile what={bench.meanwhile} />
	{/await}{/if}
{#if leaving.to !== null}{#await import('$lib/frame/Leaving.svelte') then { default: Leaving }}
		<Leaving
			onkeep={() => leaving.go(true)}
			ondrop={() => leaving.go(false)}
			onstay={leaving.stay}
		/>
	{/await}{/if}

<style>
	/* The document never scrolls: only what lies in the frame does. */
	.frame {
		position: fixed;
		inset: 0;
		display: grid;
		grid-template-columns: 212px minmax(0, 1fr) 300px;
		grid-template-rows: minmax(0, 1fr) auto;
	}
	.frame.plain {
		grid-template-columns: 212px minmax(0, 1fr);
	}
	.rail {
		border-right: 1px solid var(--line);
		min-height: 0;
	}
	main {
		position: relative;
		padding: 1.1rem 1.7rem 0.6rem;
		overflow-y: auto;
		min-width: 0;
		outline: none;
	}
	.findings {
		position: relative;
		border-left: 1px solid var(--line);
		min-height: 0;
	}
	footer {
		position: relative;
		grid-column: 1 / -1;
		border-top: 1px solid var(--ink);
		background: var(--raised);
		padding: 0.5rem 1.35rem;
		display: flex;
		flex-wrap: wrap;
		gap: 0.45rem 1rem;
		align-items: center;
		min-height: 56px;
		min-width: 0;
	}
	@media (max-width: 900px) {
		.frame,
		.frame.plain {
			grid-template-columns: minmax(0, 1fr);
			grid-template-rows: auto minmax(0, 1fr) auto;
		}
		.rail {
			border: 0;
			border-bottom: 1px solid var(--line);
		}
		main {
			padding: 0.8rem 1rem;
		}
		footer {
			padding: 0.3rem 1rem;
			min-height: 0;
		}
	}
</style>
