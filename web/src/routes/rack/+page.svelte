<script lang="ts">
	import { goto, invalidate } from '$app/navigation';
	import { api, told, type Schemas } from '$lib/api/client';
	import { upload } from '$lib/api/upload';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import Mark from '$lib/frame/Mark.svelte';
	import PartShape from '$lib/rack/PartShape.svelte';
	import PartState from '$lib/rack/PartState.svelte';

	type Line = Schemas['PartLine'];
	let { data } = $props();
	const parts = $derived<Line[]>(data.parts);
	const attempt = new Attempt();
	let picker = $state<HTMLInputElement>();
	type Show = 'all' | 'free' | 'lent' | 'due' | 'stopped' | 'away';
	let show = $state<Show>('all');
	const free = (l: Line): boolean =>
		l.state === 'in_use' && !l.rigs.some((r) => r.is_on) && l.stop === null;
	const groups: Record<Show, [title: string, of: (l: Line) => boolean]> = {
		all: ['In use', (l) => l.state !== 'put_away' && l.state !== 'condemned'],
		free: ['Free', free],
		lent: ['Lent', (l) => l.state === 'lent'],
		due: ['Due', (l) => l.due.length > 0],
		stopped: ['Stopped', (l) => l.stop !== null],
		away: ['Put away', (l) => l.state === 'put_away' || l.state === 'condemned']
	};
	const shown = $derived(parts.filter(groups[show][1]));
	const kinds = $derived(Object.entries(reference.catalog?.parts ?? {}));
	const count = (of: (l: Line) => boolean): number => parts.filter(of).length;

	async function make(kind: string, one: string): Promise<void> {
		await attempt.run(async () => {
			const body = { name: `New ${one.toLowerCase()}`, notes: '', of: { kind } };
			const made = await told(api.POST('/api/parts', { body: body as never }));
			await goto(`/rack/${made.line.mark}`);
		});
	}

	async function take(event: Event): Promise<void> {
		const input = event.currentTarget as HTMLInputElement;
		const file = input.files?.[0];
		if (!file) return;
		await attempt.run(async () => {
			const made = await upload<{ line: Line }>('/api/parts/import', file);
			await invalidate('rack:list');
			await goto(`/rack/${made.line.mark}`);
		});
		input.value = '';
	}
</script>

<svelte:head><title>Rack · Lyrandis</title></svelte:head>

<main id="main" tabindex="-1">
	<header>
		<a class="brand" href="/"><Mark />Lyrandis</a>
		<h1>What lies on the rack?</h1>
		<p class="answer">
			{#if parts.length === 0}Nothing yet.{:else}<strong>{count(groups.all[1])}</strong> parts,
				<strong>{count(free)}</strong> of them free{#if count(groups.lent[1])}, <strong
						>{count(groups.lent[1])}</strong
					> lent{/if}{#if count(groups.stopped[1])}, <strong class="stop"
						>{count(groups.stopped[1])} stopped</strong
					>{/if}.{/if}
		</p>
		<nav>
			<a class="act plain" href="/">Rigs</a>
			<a class="act" href="/rack/fit">Fit from the rack</a>
			<button class="act plain" onclick={() => picker?.click()}>Take in a part's file</button>
			<input
				bind:this={picker}
				type="file"
				accept=".json,application/json"
				aria-label="File of a part"
				onchange={take}
				hidden
			/>
			{#if parts.some((l) => l.kept && l.state === 'lent')}
				<a class="act plain" href="/api/parts/lent.ics" download>Days they are due back</a>
			{/if}
		</nav>
	</header>
	{#if attempt.fault}<p class="fault" role="alert">{attempt.fault}</p>{/if}

	<p class="show" role="group" aria-label="Which parts to show">
		{#each Object.entries(groups) as [id, [title, of]] (id)}
			<button class="link" aria-pressed={show === id} onclick={() => (show = id as Show)}
				>{title} <span class="num">{count(of)}</span></button
			>
		{/each}
	</p>

	{#each kinds as [kind, called] (kind)}
		{@const lines = shown.filter((l) => l.kind === kind)}
		{#if lines.length || show === 'all'}
			<section aria-labelledby="kind-{kind}">
				<h2 id="kind-{kind}">
					{called.several}
					<button class="link" onclick={() => make(kind, called.one)}
						>New<span class="sr-only"> {called.one}</span></button
					>
				</h2>
				<ul>
					{#each lines as line (line.mark)}
						<li>
							<span class="shape"><PartShape kind={line.kind} size={line.size_in} /></span>
							<a class="name" href="/rack/{line.mark}">{line.name}</a>
							<span class="what"><SaidText said={line.what} /></span>
							<span class="state"><PartState {line} /></span>
						</li>
					{:else}
						<li class="quiet">None.</li>
					{/each}
				</ul>
			</section>
		{/if}
	{/each}
	{#if shown.length === 0 && show !== 'all'}<p class="quiet">None of these.</p>{/if}
</main>

<style>
	main {
		max-width: 62rem;
		margin: 0 auto;
		padding: 2.2rem 1.5rem 3rem;
		height: 100%;
		overflow-y: auto;
	}
	h1 {
		font-size: 2rem;
		margin: 0.9rem 0 0.2rem;
	}
	.answer {
		font-size: 1.1rem;
	}
	nav {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
		margin: 1rem 0 0.6rem;
	}
	nav a {
		text-decoration: none;
	}
	.show {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 1.4rem;
		border-bottom: 1px solid var(--ink);
		padding: 0.4rem 0;
	}
	.show .link {
		min-height: var(--target);
		text-decoration: none;
		color: var(--quiet);
	}
	.show [aria-pressed='true'] {
		color: var(--heather);
		text-decoration: underline;
	}
	h2 {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		font-size: 1.25rem;
		margin-top: 1.3rem;
	}
	h2 .link {
		font-family: 'Atkinson Hyperlegible Next Variable', system-ui, sans-serif;
		font-size: 0.9rem;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0;
		border-top: 1px solid var(--line);
	}
	li {
		display: grid;
		grid-template-columns: 10.5rem 12rem 1fr 15rem;
		gap: 0.1rem 1.2rem;
		align-items: center;
		padding: 0.35rem 0;
		border-bottom: 1px solid var(--hair);
	}
	.name {
		display: flex;
		align-items: center;
		min-height: var(--target);
		font-family: var(--slab);
		font-size: 1.08rem;
		text-decoration: none;
	}
	.name:hover {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	.what,
	.state {
		font-size: 0.92rem;
		line-height: 1.3;
	}
	.stop,
	.fault {
		color: var(--brick);
	}
	@media (max-width: 900px) {
		li {
			grid-template-columns: 10.5rem 1fr;
		}
		.shape {
			grid-row: 1 / span 3;
		}
		.name,
		.what,
		.state {
			grid-column: 2;
		}
	}
	@media (max-width: 560px) {
		main {
			padding: 1rem 1rem 3rem;
		}
		li {
			grid-template-columns: 1fr;
			padding: 0.6rem 0;
		}
		.shape {
			grid-row: auto;
		}
		.name,
		.what,
		.state {
			grid-column: 1;
		}
	}
</style>
