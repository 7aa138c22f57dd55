<script lang="ts">
	import { onDestroy } from 'svelte';
	import { beforeNavigate, goto, invalidate } from '$app/navigation';
	import { page } from '$app/state';
	import { putBench, type RigBench } from '$lib/bench/bench.svelte';
	import { notify } from '$lib/bench/notice.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Findings from '$lib/frame/Findings.svelte';
	import KeepBar from '$lib/frame/KeepBar.svelte';
	import { listen } from '$lib/frame/keys';
	import Rail from '$lib/frame/Rail.svelte';
	import Tally from '$lib/frame/Tally.svelte';

	let { children, data } = $props();
	const bench = $derived(data.bench);
	let unitsOpen = $state(false);
	let keysOpen = $state(false);
	let leaving = $state<string | null>(null);
	let letGo = false;
	let bar = $state<KeepBar>();

	const id = $derived(Number(page.params.id));
	const station = $derived(page.url.pathname.split('/')[3] ?? 'draw');
	const view = $derived(bench?.bench.stations.find((s) => s.station === station));
	putBench(() => bench as RigBench);
	onDestroy(() => bench && (bench.shut = true));

	beforeNavigate((navigation) => {
		// What is on its way to be kept is not lost by going on.
		if (!bench?.dirty || bench.busy || letGo) return;
		if (navigation.to?.url.pathname === page.url.pathname) return;
		navigation.cancel();
		if (navigation.type !== 'leave' && navigation.to) leaving = navigation.to.url.pathname;
	});

	async function leave(keep: boolean): Promise<void> {
		const to = leaving;
		if (!bench || to === null) return;
		if (keep) {
			if (!(await bench.keep(view ? station : null, '', 'provisional'))) {
				leaving = null;
				return;
			}
		} else bench.revert();
		leaving = null;
		letGo = true;
		await goto(to);
		letGo = false;
	}

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
		const stations = reference.catalog?.stations ?? [];
		const here = stations.findIndex((s) => s.id === station);
		const next = stations[here + step];
		if (next) void goto(`/rig/${id}/${next.id}`);
	}

	const onkey = listen({
		go: (path) => void goto(`/rig/${id}/${path}`),
		walk,
		keep: () => void bar?.keep(),
		revert: () => bench?.dirty && bench.revert(),
		undo: () => void back(false),
		redo: () => void back(true),
		print: () => window.open(`/api/rigs/${id}/sheet`, '_blank', 'noopener'),
		units: () => (unitsOpen = true),
		help: () => (keysOpen = true),
		trial: () => {
			const first = document.querySelector<HTMLElement>('main [data-trial]');
			if (first) first.focus();
			else notify('This station has no trials.');
		}
	});
</script>

<!-- The one hatch for wood, for every drawing of the page. -->
<svg width="0" height="0" class="hatch" aria-hidden="true">
	<pattern
		id="wood"
		width="5"
		height="5"
		patternUnits="userSpaceOnUse"
		patternTransform="rotate(28)"
	>
		<path d="M0 0V5" stroke="var(--wood)" stroke-width="2.2" />
	</pattern>
</svg>
<svelte:window onkeydown={onkey} />

{#if data.shut !== null}
	{#await import('$lib/frame/ShutRig.svelte') then { default: ShutRig }}
		<ShutRig {id} reason={data.shut} onOpened={() => invalidate('rig:open')} />
	{/await}
{:else if bench}
	{#key bench}
		<div class="frame" class:plain={!view}>
			<div class="rail">
				<Rail onPreferences={() => (unitsOpen = true)} onKeys={() => (keysOpen = true)} />
			</div>
			<main>{@render children()}</main>
			{#if view}<div class="findings"><Findings station={view} /></div>{/if}
			<footer>
				<Tally />
				<KeepBar bind:this={bar} station={view ? station : null} />
			</footer>
		</div>
	{/key}
{/if}

<!-- Dialogs come when they are asked for: a page then is lighter by a third of its script. -->
{#if unitsOpen}{#await import('$lib/frame/Preferences.svelte') then { default: Preferences }}
		<Preferences bind:open={unitsOpen} />
	{/await}{/if}
{#if keysOpen}{#await import('$lib/frame/Keys.svelte') then { default: Keys }}
		<Keys bind:open={keysOpen} />
	{/await}{/if}
{#if bench?.meanwhile}{#await import('$lib/frame/Meanwhile.svelte') then { default: Meanwhile }}
		<Meanwhile what={bench.meanwhile} />
	{/await}{/if}
{#if leaving !== null}{#await import('$lib/frame/Leaving.svelte') then { default: Leaving }}
		<Leaving
			onkeep={() => leave(true)}
			ondrop={() => leave(false)}
			onstay={() => (leaving = null)}
		/>
	{/await}{/if}

<style>
	.hatch {
		position: absolute;
	}
	.frame {
		display: grid;
		grid-template-columns: 212px minmax(0, 1fr) 300px;
		grid-template-rows: minmax(0, 1fr) auto;
		height: 100vh;
	}
	.frame.plain {
		grid-template-columns: 212px minmax(0, 1fr);
	}
	.rail {
		border-right: 1px solid var(--line);
		min-height: 0;
	}
	main {
		padding: 1.3rem 1.7rem 0.6rem;
		overflow-y: auto;
		min-width: 0;
	}
	.findings {
		border-left: 1px solid var(--line);
		min-height: 0;
	}
	footer {
		grid-column: 1 / -1;
		border-top: 1px solid var(--ink);
		background: var(--raised);
		padding: 0.5rem 1.35rem;
		display: flex;
		flex-wrap: wrap;
		gap: 0.45rem 1rem;
		align-items: center;
		min-height: 56px;
	}
	@media (max-width: 900px) {
		.frame,
		.frame.plain {
			display: block;
			height: auto;
			padding-bottom: 5.5rem;
		}
		.rail,
		.findings {
			border: 0;
			border-bottom: 1px solid var(--line);
		}
		main {
			padding: 1rem;
		}
		footer {
			position: fixed;
			inset: auto 0 0 0;
			flex-wrap: wrap;
			padding: 0.4rem 1rem;
			gap: 0.4rem 1rem;
			z-index: 10;
		}
	}
</style>
