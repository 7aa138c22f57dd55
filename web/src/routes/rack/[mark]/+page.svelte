<script lang="ts">
	import { onDestroy, untrack } from 'svelte';
	import { invalidate } from '$app/navigation';
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { latest } from '$lib/bench/latest';
	import { notify } from '$lib/bench/notice.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import { day } from '$lib/format/day';
	import SaidText from '$lib/format/SaidText.svelte';
	import { deeds } from '$lib/frame/window.svelte';
	import { askBeforeLeaving } from '$lib/frame/leave.svelte';
	import Mark from '$lib/frame/Mark.svelte';
	import Keeping from '$lib/rack/Keeping.svelte';
	import PartFields from '$lib/rack/PartFields.svelte';
	import PartShape from '$lib/rack/PartShape.svelte';
	import PartState from '$lib/rack/PartState.svelte';
	import MatchedSet from '$lib/rack/MatchedSet.svelte';
	import ShaftTable from '$lib/rack/ShaftTable.svelte';
	import ShaftTools from '$lib/rack/ShaftTools.svelte';

	type View = Schemas['PartView'];
	let { data } = $props();
	let answered = $state<View | null>(null);
	const view = $derived<View>(answered?.line.mark === data.view.line.mark ? answered : data.view);
	const line = $derived(view.line);
	const called = $derived(reference.catalog?.parts[line.kind]);
	const attempt = new Attempt();
	const looking = new Attempt();
	let changes = $state<Record<string, unknown>>({});
	let unread = $state<Record<string, string>>({});
	let reaches = $state<Schemas['Reached'][]>([]);
	let why = $state('');
	let turns = $state(0);

	const body = $derived({
		...(view.part.of as unknown as Record<string, unknown>),
		...Object.fromEntries(
			Object.entries(changes).map(([path, value]) => [path.replace(/^of\./, ''), value])
		)
	} as Record<string, unknown>);
	const name = $derived((changes.name as string | undefined) ?? view.part.name);
	const notes = $derived((changes.notes as string | undefined) ?? view.part.notes ?? '');
	const n = $derived(Object.keys(changes).length);
	const at = $derived({ params: { path: { mark: line.mark } } });
	const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

	const look = latest<void>(async () => {
		const sent = $state.snapshot(changes);
		await looking.run(async () => {
			const body = { changes: sent };
			const found = await told(api.POST('/api/parts/{mark}/preview', { ...at, body }));
			if (same(sent, $state.snapshot(changes))) reaches = found;
		});
	});

	function set(path: string, value: unknown): void {
		const kept = path.startsWith('of.')
			? (view.part.of as unknown as Record<string, unknown>)[path.slice(3)]
			: (view.part as unknown as Record<string, unknown>)[path];
		if (same(value, kept ?? null)) delete changes[path];
		else changes[path] = value;
		reaches = [];
		if (Object.keys(changes).length) look();
	}

	/** The latest line of its story that this window has seen. */
	const seen = () => ({ seq: line.seq, digest: line.digest });

	function take(next: View): void {
		answered = next;
		changes = {};
		unread = {};
		reaches = [];
		why = '';
		turns++;
		void invalidate('rack:list');
	}

	async function keep(sent: Record<string, unknown>, said: string): Promise<boolean> {
		return attempt.run(async () => {
			const body = { ...seen(), changes: sent, why };
			take(await told(api.POST('/api/parts/{mark}/keep', { ...at, body })));
			notify(said);
		});
	}

	async function step(deed: 'undo' | 'redo'): Promise<void> {
		await attempt.run(async () => {
			const body = seen();
			take(
				await told(
					api.POST(`/api/parts/{mark}/${deed}` as '/api/parts/{mark}/undo', { ...at, body })
				)
			);
			notify(deed === 'undo' ? 'Taken back, on every rig.' : 'Done again, on every rig.');
		});
	}

	function drop(): void {
		changes = {};
		unread = {};
		reaches = [];
		turns++;
	}

	const opened = untrack(() => data.view.line.mark);
	useDraft(
		'changes',
		() => (line.mark === opened ? { changes, why } : { changes: {}, why: '' }),
		(was) => {
			({ changes, why } = was);
			turns++;
			if (Object.keys(changes).length) look();
		},
		opened
	);

	const canKeep = $derived(n > 0 && Object.keys(unread).length === 0 && name.trim() !== '');
	const keepAll = async (): Promise<boolean> =>
		canKeep && (await keep($state.snapshot(changes), 'Kept, on every rig.'));
	const leaving = askBeforeLeaving({ waiting: () => n > 0, keep: keepAll, drop });
	deeds.page = {
		keep: () => void keepAll(),
		revert: drop,
		undo: () => void (n === 0 && view.undoable && step('undo')),
		redo: () => void (n === 0 && view.redoable && step('redo'))
	};
	onDestroy(() => (deeds.page = null));
</script>

<svelte:head><title>{view.part.name} · Rack · Lyrandis</title></svelte:head>

<main id="main" tabindex="-1">
	<header>
		<p class="up">
			<a class="brand" href="/"><Mark />Lyrandis</a>
			<a class="link" href="/rack">Rack</a>
		</p>
		<h1>
			<span class="kind">{called?.one}</span>
			<input
				class="title"
				value={name}
				maxlength="200"
				aria-label="Name"
				oninput={(e) => set('name', e.currentTarget.value)}
			/>
		</h1>
		<p class="answer"><SaidText said={line.what} />.</p>
		<div class="shape"><PartShape kind={line.kind} size={line.size_in} inch={4.4} /></div>
	</header>
	{#if attempt.fault ?? looking.fault}
		<p class="fault" role="alert">{attempt.fault ?? looking.fault}</p>
	{/if}

	<div class="columns">
		<section aria-label="What it is">
			<PartFields
				kind={line.kind}
				{body}
				changed={Object.keys(changes).map((p) => p.replace(/^of\./, ''))}
				reset={turns}
				onset={(field, value) => set(`of.${field}`, value)}
				onunread={(field, reason) => {
					if (reason) unread[field] = reason;
					else delete unread[field];
				}}
			/>
			{#if line.kind === 'arrows'}
				<ShaftTable
					shafts={(body.shafts as Schemas['Shaft'][] | undefined) ?? []}
					onset={(shafts) => set('of.shafts', shafts)}
				/>
				<ShaftTools
					mark={line.mark}
					{body}
					shafts={(body.shafts as Schemas['Shaft'][] | undefined) ?? []}
					kept={!('of.shafts' in changes)}
					onset={(shafts) => set('of.shafts', shafts)}
				/>
				<MatchedSet
					shafts={(body.shafts as Schemas['Shaft'][] | undefined) ?? []}
					rig={line.rigs.find((r) => r.is_on)?.rig_id ?? null}
				/>
			{/if}
			<label class="notes"
				>Notes <input
					class="line-input"
					value={notes}
					maxlength="200"
					oninput={(e) => set('notes', e.currentTarget.value)}
				/></label
			>
			{#if n}
				<div class="bar">
					<p aria-live="polite">
						<strong>{n === 1 ? 'One change' : `${n} changes`} not kept.</strong>
						{#if reaches.length}Keeping {n === 1 ? 'it' : 'them'} reaches {reaches
								.map((r) => (r.due.length ? `${r.rig} (${r.due.join(', ')} due)` : r.rig))
								.join(', ')}.{:else}No rig is changed by it.{/if}
					</p>
					<input
						class="line-input"
						bind:value={why}
						maxlength="500"
						placeholder="why (may stay empty)"
						aria-label="Reason for keeping this"
					/>
					<button class="act plain" onclick={drop}>Back<kbd>Esc</kbd></button>
					<button class="act" disabled={!canKeep} onclick={keepAll}>Keep this<kbd>k</kbd></button>
				</div>
			{/if}
		</section>

		<aside aria-label="Where it is">
			<h2>Where it is</h2>
			<p><PartState {line} /></p>
			<Keeping {line} keeping={view.part.keeping} onkeep={keep} busy={n > 0} />
			<h2>Rigs</h2>
			<ul class="rigs">
				{#each line.rigs as rig (`${rig.rig_id}/${rig.slot}`)}
					<li>
						<a class="link" href="/rig/{rig.rig_id}/draw">{rig.rig}</a>
						<span class="quiet"
							>{rig.is_on ? 'on it' : `until ${day(rig.last_at.slice(0, 10))}`}</span
						>
					</li>
				{:else}<li class="quiet">On no rig yet.</li>{/each}
			</ul>
			<h2>Its story</h2>
			<p class="line">
				{#if view.undoable}<button class="link" onclick={() => step('undo')}>Take back</button>{/if}
				{#if view.redoable}<button class="link" onclick={() => step('redo')}>Do again</button>{/if}
				<a class="link" href="/rack/beside?mine={line.mark}">Side by side</a>
				<a class="link" href="/api/parts/{line.mark}/file" download>File</a>
			</p>
			<ol>
				{#each view.story as told_, i (i)}
					<li>
						<span class="quiet">{day(told_.at.slice(0, 10))}</span>
						<SaidText said={told_.said} />
						{#if told_.rig_id}<a class="link" href="/rig/{told_.rig_id}/keep">{told_.rig}</a>{/if}
					</li>
				{/each}
			</ol>
		</aside>
	</div>
</main>
{#if leaving.to !== null}{#await import('$lib/frame/Leaving.svelte') then { default: Leaving }}
		<Leaving
			onkeep={() => leaving.go(true)}
			ondrop={() => leaving.go(false)}
			onstay={leaving.stay}
		/>
	{/await}{/if}

<style>
	main {
		max-width: 74rem;
		margin: 0 auto;
		padding: 1.4rem 1.5rem 3rem;
		height: 100%;
		overflow-y: auto;
	}
	.up {
		display: flex;
		gap: 1.6rem;
		align-items: center;
	}
	h1 {
		margin: 0.7rem 0 0;
		font-size: 1.8rem;
		display: flex;
		flex-wrap: wrap;
		gap: 0 0.8rem;
		align-items: baseline;
	}
	.kind {
		color: var(--quiet);
		font-size: 1.2rem;
	}
	.title {
		font: inherit;
		font-size: 1.8rem;
		color: inherit;
		background: none;
		border: 0;
		border-bottom: 1px dashed transparent;
		padding: 0;
		flex: 1 1 14rem;
		min-width: 0;
	}
	.title:hover,
	.title:focus {
		border-bottom-color: var(--line);
	}
	.answer {
		font-size: 1.1rem;
	}
	.shape {
		margin: 0.5rem 0 0.9rem;
		border-bottom: 1px solid var(--ink);
		padding-bottom: 0.6rem;
		overflow: hidden;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 19rem;
		gap: 2.4rem;
	}
	.notes {
		display: flex;
		gap: 0.8rem;
		align-items: baseline;
		margin-top: 1rem;
		color: var(--quiet);
	}
	.notes .line-input {
		flex: 1;
	}
	.bar {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 0.9rem;
		align-items: center;
		border-top: 1px solid var(--ink);
		margin-top: 1.2rem;
		padding-top: 0.7rem;
	}
	.bar p {
		flex: 1 1 100%;
	}
	.bar .line-input {
		flex: 1 1 10rem;
	}
	h2 {
		font-size: 1.15rem;
		margin: 1.1rem 0 0.3rem;
		border-bottom: 1px solid var(--line);
	}
	aside h2:first-child {
		margin-top: 0;
	}
	ul,
	ol {
		list-style: none;
		padding: 0;
		margin: 0;
	}
	li {
		padding: 0.25rem 0;
		border-bottom: 1px solid var(--hair);
		font-size: 0.92rem;
		line-height: 1.35;
		overflow-wrap: anywhere;
	}
	.line {
		display: flex;
		gap: 1.2rem;
	}
	.fault {
		color: var(--brick);
	}
	li .link {
		display: inline-flex;
		align-items: center;
		min-height: var(--target);
	}
	@media (max-width: 900px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 560px) {
		.kind {
			flex: 1 1 100%;
		}
		.title {
			font-size: 1.3rem;
		}
		main {
			padding: 0.8rem 1rem 3rem;
		}
	}
</style>
