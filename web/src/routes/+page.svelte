<script lang="ts">
	import { goto, invalidate } from '$app/navigation';
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { notify } from '$lib/bench/notice.svelte';
	import { Outgoing } from '$lib/bench/outgoing.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import AllData from '$lib/frame/AllData.svelte';
	import Mark from '$lib/frame/Mark.svelte';
	import { deeds } from '$lib/frame/window.svelte';
	import Sending from '$lib/frame/Sending.svelte';
	import Sheet from '$lib/frame/Sheet.svelte';

	type Note = Schemas['RigNote'];
	let { data } = $props();
	const rigs = $derived<Note[]>(data.rigs);
	let away = $state(false);
	const attempt = new Attempt();
	const outgoing = new Outgoing();
	let naming = $state<{ rig: Note; copy: boolean } | null>(null);
	let name = $state('');
	let dataOpen = $state(false);
	let picker = $state<HTMLInputElement>();
	const shown = $derived(rigs.filter((r) => r.archived === away));
	const put = $derived(rigs.filter((r) => r.archived).length);

	const list = (): Promise<void> => invalidate('rigs:list');

	const at = (id: number) => ({ params: { path: { id } } });

	async function rename(): Promise<void> {
		if (!naming) return;
		const { rig, copy } = naming;
		await attempt.run(async () => {
			if (copy) await told(api.POST('/api/rigs/{id}/copy', { ...at(rig.id), body: { name } }));
			else {
				const { seq } = await told(api.GET('/api/rigs/{id}', at(rig.id)));
				const body = { seq, changes: { name }, standing: 'provisional' as const, why: '' };
				await told(api.POST('/api/rigs/{id}/keep', { ...at(rig.id), body }));
			}
			naming = null;
			await list();
		});
	}

	function archive(rig: Note): Promise<boolean> {
		return attempt.run(async () => {
			const body = { away: !rig.archived };
			await told(api.POST('/api/rigs/{id}/archive', { ...at(rig.id), body }));
			notify(rig.archived ? `${rig.name} is back.` : `${rig.name} is put away; nothing is lost.`);
			await list();
		});
	}

	async function take(event: Event): Promise<void> {
		const input = event.currentTarget as HTMLInputElement;
		const file = input.files?.[0];
		if (!file) return;
		await attempt.run(async () => {
			try {
				const taken = await outgoing.send<{ id: number }>('import', file);
				await goto(`/rig/${taken.id}/draw`);
			} finally {
				await list(); // stopped or refused, the list says what is kept
			}
		});
		input.value = '';
	}
</script>

<svelte:head><title>Rigs · Lyrandis</title></svelte:head>

<main id="main" tabindex="-1">
	<header>
		<h1 class="brand"><Mark />Lyrandis</h1>
		<p class="quiet">One archer, one bow, one string, one arrow: a rig.</p>
		<nav>
			<a class="act" href="/new">New rig</a>
			<button class="act plain" onclick={() => picker?.click()}>Take in a rig file</button>
			<input
				bind:this={picker}
				type="file"
				accept=".json,application/json"
				onchange={take}
				hidden
			/>
			<a class="act plain" href="/rack">Rack</a>
			<button class="act plain" onclick={() => (dataOpen = true)}>All data</button>
			<button class="act plain" onclick={() => (deeds.units = true)}>Units</button>
			<a class="act plain" href="/terms">Terms</a>
		</nav>
	</header>

	{#if outgoing.share !== null}
		<Sending {outgoing} reading="checking every entry" />
	{/if}
	{#if attempt.fault}<p class="fault" role="alert">{attempt.fault}</p>{/if}

	{#if rigs.length === 0}
		<section class="empty">
			<h2>No rig yet</h2>
			<p>
				Begin with how far you draw and the bow you have or think of. Lyrandis then says what fits
				and why, sets string, brace height and nock point from their ordinary starts, puts an arrow
				on it and computes a first crawl chart. It takes a few minutes.
			</p>
			<a class="act" href="/new">Set up the first rig</a>
		</section>
	{:else}
		<ul>
			{#each shown as rig (rig.id)}
				<li>
					<a class="name" href="/rig/{rig.id}/draw">{rig.name}</a>
					{#if rig.unreadable}
						<span class="fault">Cannot be read here, {rig.unreadable}</span>
					{:else}
						<span>
							{reference.catalog?.forms[rig.form]?.title}, {rig.hand} hand, {reference.word(
								'archer.release',
								rig.release
							)}{rig.archer ? `, ${rig.archer}` : ''}
						</span>
					{/if}
					{#if rig.stop}
						<span class="fault"><strong>Stop.</strong> <SaidText said={rig.stop} /></span>
					{/if}
					<span class="quiet">
						kept {rig.changed_at.slice(0, 10)}{#if rig.due}, <strong class="due"
								>{rig.due} to recheck</strong
							>{/if}
					</span>
					<span class="deeds">
						{#if !rig.unreadable}
							<a class="link" href="/rig/{rig.id}/range">At the range</a>
							<button
								class="link"
								onclick={() => ((naming = { rig, copy: false }), (name = rig.name))}>Rename</button
							>
							<button
								class="link"
								onclick={() => ((naming = { rig, copy: true }), (name = `${rig.name}, copy`))}
								>Copy</button
							>
							<a class="link" href="/api/rigs/{rig.id}/sheet" target="_blank" rel="noopener"
								>Sheet</a
							>
						{/if}
						<a class="link" href="/api/rigs/{rig.id}/file" download>File</a>
						<button class="link" onclick={() => archive(rig)}
							>{rig.archived ? 'Bring back' : 'Put away'}</button
						>
					</span>
				</li>
			{:else}
				<li class="quiet">{away ? 'Nothing is put away.' : 'All rigs are put away.'}</li>
			{/each}
		</ul>
		{#if put > 0 || away}
			<button class="link" onclick={() => (away = !away)}
				>{away ? 'Back to the rigs in use' : `${put} put away`}</button
			>
		{/if}
	{/if}
	<footer class="quiet">
		Estimates here replace neither the maker's limits nor a bowyer's, coach's or range officer's
		word.
	</footer>
</main>

<Sheet open={naming !== null} title={naming?.copy ? 'Copy as' : 'Rename'}>
	<form onsubmit={(e) => (e.preventDefault(), rename())}>
		<input class="line-input" bind:value={name} maxlength="80" aria-label="Name of the rig" />
		<p class="buttons">
			<button class="act" disabled={!name.trim()}>{naming?.copy ? 'Copy' : 'Rename'}</button>
			<button type="button" class="act plain" onclick={() => (naming = null)}>Back</button>
		</p>
	</form>
</Sheet>
<AllData bind:open={dataOpen} onRestored={() => void attempt.run(list)} />

<style>
	main {
		max-width: 56rem;
		margin: 0 auto;
		padding: 4rem 1.5rem 2rem;
	}
	.brand {
		display: flex;
		gap: 0.8rem;
		align-items: center;
		font-size: 2.4rem;
		font-weight: 600;
	}
	.brand :global(svg) {
		width: 44px;
		height: 44px;
	}
	nav {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
		margin: 1.4rem 0 2rem;
	}
	nav a {
		text-decoration: none;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0 0 1rem;
		border-top: 1px solid var(--ink);
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0.1rem 2rem;
		padding: 0.9rem 0;
		border-bottom: 1px solid var(--line);
	}
	.name {
		display: flex;
		align-items: center;
		min-height: 44px;
		font-family: var(--slab);
		font-size: 1.35rem;
		grid-column: 1;
		text-decoration: none;
	}
	.name:hover {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	li span {
		grid-column: 1;
	}
	li .deeds {
		grid-column: 2;
		grid-row: 1 / span 3;
		align-self: center;
		display: flex;
		flex-wrap: wrap;
		gap: 0 1rem;
		white-space: nowrap;
	}
	.due,
	.fault {
		color: var(--brick);
	}
	.empty {
		max-width: 36rem;
		border-top: 1px solid var(--ink);
		padding-top: 1.2rem;
	}
	.empty p {
		margin: 0.5rem 0 1.2rem;
	}
	.empty a {
		text-decoration: none;
		display: inline-block;
	}
	.buttons {
		display: flex;
		gap: 0.8rem;
		margin-top: 1.2rem;
	}
	footer {
		margin-top: 3rem;
		font-size: 0.85rem;
	}
	@media (max-width: 700px) {
		li .deeds {
			grid-column: 1;
			grid-row: auto;
		}
	}
</style>
