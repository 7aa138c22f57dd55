<script lang="ts">
	import { onDestroy } from 'svelte';
	import { goto, invalidate } from '$app/navigation';
	import { api, told, type Schemas } from '$lib/api/client';
	import { follow } from '$lib/api/job';
	import { Answer } from '$lib/bench/answer.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import MeasureInput from '$lib/controls/MeasureInput.svelte';
	import PickField from '$lib/controls/PickField.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import Glyph from '$lib/frame/Glyph.svelte';
	import Mark from '$lib/frame/Mark.svelte';
	import { screen } from '$lib/frame/window.svelte';
	import BuildShown from '$lib/rack/BuildShown.svelte';
	import NewArcher from '$lib/rack/NewArcher.svelte';
	import PartShape from '$lib/rack/PartShape.svelte';
	import { VERDICT } from '$lib/rack/verdict';

	/** What can be built of the rack for one archer, the best first, and taken out. */
	type Fit = Schemas['RackFit'];
	type Use = Schemas['AskIn']['use'];
	let { data } = $props();
	let use = $state<Use>('woodland');
	// svelte-ignore state_referenced_locally
	let most = $state<number | null>(data.most);
	let fault = $state<string | null>(null);
	let share = $state<number | null>(null);
	let chosen = $state<string | null>(null);
	let newcomer = $state(false);
	let looking: AbortController | null = null;

	const archer = $derived(data.archer);
	type Asked = { archer: string; use: Use; most_lbf: number | null };
	const question = $derived<Asked | null>(archer && { archer: archer.mark, use, most_lbf: most });
	const answer = new Answer<Asked | null, Fit>(() => question);
	const fit = $derived(answer.now);
	const builds = $derived(fit?.builds ?? []);
	const key = (b: Schemas['Buildable']): string => b.parts.map((p) => p.mark).join(' ');
	const open = $derived(
		builds.find((b) => key(b) === chosen) ?? (screen.folded ? undefined : builds[0])
	);
	const fitting = $derived(builds.filter((b) => b.level !== 'stop'));
	const free = $derived(fitting.filter((b) => b.free));
	const note = (path: string) => reference.catalog?.fields[path];
	const weight = $derived({
		...note('bow.marked_weight_lbf')!,
		title: 'At most, at the draw',
		help: 'What the archer should pull at most; left empty, only holds speak.',
		optional: true,
		low: 5,
		high: 120
	});

	/** Where the parts are that are not free, each place once. */
	const places = (b: Schemas['Buildable']): string[] => [
		...new Set(b.parts.flatMap((p) => (p.where && !p.free ? [reference.said(p.where)] : [])))
	];

	/** Looks through the rack as a job, so that a large one tells how far it is. */
	async function look(body: Asked): Promise<void> {
		looking?.abort();
		const mine = (looking = new AbortController());
		fault = null;
		share = 0;
		try {
			const job = await told(api.POST('/api/jobs/fit', { body }));
			const found = await follow<Fit>(job.id, {
				onTold: (done) => (share = mine.signal.aborted ? share : done),
				signal: mine.signal
			});
			answer.take(body, found);
		} catch (error) {
			if (!mine.signal.aborted) fault = (error as Error).message;
		} finally {
			if (mine === looking) share = null;
		}
	}

	$effect(() => {
		if (question) void look(question);
	});
	onDestroy(() => looking?.abort());

	function ask(mark: string): void {
		chosen = null;
		void goto(`/rack/fit?archer=${mark}`, { replaceState: true, keepFocus: true, noScroll: true });
	}

	async function came(line: Schemas['PartLine']): Promise<void> {
		newcomer = false;
		await invalidate('rack:list');
		ask(line.mark);
	}

	/** Taken out or back, it ranks elsewhere: it stays open. */
	async function again(): Promise<void> {
		if (open) chosen = key(open);
		await invalidate('rack:list');
		if (question) await look(question);
	}
</script>

<svelte:head><title>Fit from the rack · Lyrandis</title></svelte:head>

<main id="main" tabindex="-1">
	<header>
		<p class="up">
			<a class="brand" href="/"><Mark />Lyrandis</a>
			<a class="link" href="/rack">Rack</a>
		</p>
		<h1>What on the rack fits?</h1>
		<p class="answer" aria-live="polite">
			{#if !archer}Put an archer on the rack first: a name and a draw are enough.
			{:else if fault}<span class="fault" role="alert">{fault}</span>
			{:else if !fit}Looking through the rack …
			{:else if builds.length === 0}No bow can be built of what lies there.
			{:else if fitting.length === 0}Nothing on the rack fits {archer.name}; why stands with each
				bow.
			{:else}<strong>{fitting.length}</strong> of {builds.length} bows could be {archer.name}'s,
				<strong>{free.length}</strong> of them free. <SaidText said={fit.known} />{/if}
		</p>
	</header>

	<form class="asking" aria-label="For whom" onsubmit={(e) => e.preventDefault()}>
		{#if archer}
			<p class="who">
				<label for="who">For</label>
				<select
					class="choose"
					id="who"
					value={archer.mark}
					onchange={(e) => ask(e.currentTarget.value)}
				>
					{#each data.archers as one (one.mark)}<option value={one.mark}>{one.name}</option>{/each}
				</select>
			</p>
			<PickField
				note={note('use')}
				path="use"
				value={use}
				onvalue={(value) => (use = (value ?? 'woodland') as Use)}
			/>
			<MeasureInput
				note={weight}
				value={most}
				slider={false}
				onvalue={(value) => (most = value)}
				onenter={() => {}}
			/>
		{/if}
		<button
			type="button"
			class="act plain"
			aria-expanded={newcomer}
			onclick={() => (newcomer = !newcomer)}>Somebody new</button
		>
		{#if share !== null}
			<p class="busy">
				<progress max="1" value={share} aria-label="Looking through the rack"></progress>
				<button type="button" class="link" onclick={() => looking?.abort()}>Stop</button>
			</p>
		{/if}
	</form>
	{#if newcomer || !archer}<NewArcher onmade={came} />{/if}
	{#if archer}<p class="quiet draws">{archer.name} <SaidText said={archer.what} />.</p>{/if}

	<div class="columns">
		<section aria-label="Bows that can be built" aria-busy={share !== null}>
			<ul>
				{#each builds as build, i (key(build))}
					{@const is = open === build}
					<li class:is>
						<button
							class="row"
							aria-expanded={is}
							onclick={() => (chosen = is && screen.folded ? null : key(build))}
						>
							<span class="shape"
								><PartShape
									kind="bow"
									size={build.length_in}
									inch={screen.folded ? 2.2 : 2.4}
								/></span
							>
							<span class="names"
								>{#each build.parts as part, p (part.mark)}{p ? ', ' : ''}{part.name}{/each}</span
							>
							<span class="said"><SaidText said={build.said} /></span>
							<span class="with"
								>{#each [build.strings[0], build.sets[0]] as option, o (o)}{#if option && option.level !== 'stop'}<span
											>{option.part.name}</span
										>{/if}{/each}</span
							>
							<span class="state {build.level}"
								><Glyph level={build.level} />{build.level !== 'stop' && build.lacks.length
									? 'lacks parts'
									: VERDICT[build.level]}</span
							>
							<span class="where" class:free={build.free}
								>{#if build.free}free{:else}{places(build).join('; ') ||
										'string or arrows taken'}{/if}</span
							>
						</button>
						{#if is && screen.folded}
							<div class="unfolded">{@render detail(build)}</div>
						{/if}
					</li>
					{#if i === fitting.length - 1 && fitting.length < builds.length}
						<li class="divide"><h2>What does not fit</h2></li>
					{/if}
				{:else}
					{#if fit}<li class="quiet">
							Bows, risers and limbs come to the <a class="link" href="/rack">rack</a> first.
						</li>{/if}
				{/each}
			</ul>
			{#if fit?.left.length}
				<h2>Left out</h2>
				<ul class="left">
					{#each fit.left as left (left.mark)}
						<li>
							<a class="link" href="/rack/{left.mark}">{left.name}</a>:
							<SaidText said={left.why} />
						</li>
					{/each}
				</ul>
			{/if}
		</section>
		{#if open && !screen.folded}
			<aside aria-label="The bow chosen">{@render detail(open)}</aside>
		{/if}
	</div>
</main>

{#snippet detail(build: Schemas['Buildable'])}
	{#key key(build)}
		{#if archer}<BuildShown {build} {archer} {use} {most} onchange={again} />{/if}
	{/key}
{/snippet}

<style>
	main {
		max-width: 82rem;
		margin: 0 auto;
		padding: 1.4rem 1.5rem 0;
		height: 100%;
		display: grid;
		grid-template-rows: auto auto auto auto 1fr;
		overflow: hidden;
	}
	.up {
		display: flex;
		gap: 1.6rem;
		align-items: center;
	}
	h1 {
		font-size: 1.9rem;
		margin: 0.4rem 0 0.1rem;
	}
	.answer {
		font-size: 1.1rem;
		min-height: 1.5em;
	}
	.asking {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 1.8rem;
		align-items: start;
		margin-top: 0.7rem;
	}
	.asking > :global(*) {
		max-width: 13rem;
	}
	.asking > .act,
	.busy {
		margin-top: 1.5rem;
	}
	.who {
		display: grid;
		line-height: 24px;
		color: var(--quiet);
		font-size: 0.82rem;
	}
	.busy {
		display: flex;
		gap: 0.8rem;
		align-items: center;
		min-height: var(--target);
	}
	progress {
		accent-color: var(--heather);
		width: 8rem;
	}
	.draws {
		padding: 0.4rem 0 0.5rem;
		border-bottom: 1px solid var(--ink);
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 25rem;
		gap: 2rem;
		min-height: 0;
	}
	.columns > section,
	aside {
		overflow-y: auto;
		padding-bottom: 2rem;
	}
	aside {
		padding-left: 1.6rem;
		border-left: 1px solid var(--line);
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0;
	}
	.row {
		display: grid;
		grid-template-columns: 11.5rem minmax(0, 1fr) 8.5rem;
		gap: 0.05rem 1.2rem;
		width: 100%;
		text-align: left;
		padding: 0.55rem 0.4rem 0.55rem 0.7rem;
		border-bottom: 1px solid var(--hair);
		border-left: 3px solid transparent;
		cursor: pointer;
	}
	.is .row {
		border-left-color: var(--heather);
		background: var(--heather-wash);
	}
	.shape {
		grid-row: 1 / span 3;
		align-self: center;
	}
	.names {
		font-family: var(--slab);
		font-weight: 600;
		font-size: 1.08rem;
		line-height: 1.25;
	}
	.said,
	.with {
		grid-column: 2;
		font-size: 0.92rem;
		line-height: 1.35;
	}
	.with {
		color: var(--quiet);
	}
	.with span + span::before {
		content: ' · ';
	}
	.state,
	.where {
		grid-column: 3;
		font-size: 0.92rem;
		line-height: 1.3;
	}
	.state {
		grid-row: 1;
		display: flex;
		gap: 0.4rem;
		align-items: center;
		font-weight: 600;
	}
	.where {
		grid-row: 2 / span 2;
		color: var(--ochre);
	}
	.free {
		color: var(--moss);
	}
	.stop {
		color: var(--brick);
	}
	.mind {
		color: var(--ochre);
	}
	.fine {
		color: var(--moss);
	}
	h2 {
		font-size: 1.1rem;
		margin: 1.1rem 0 0.2rem;
	}
	.divide h2 {
		border-bottom: 1px solid var(--line);
	}
	.left li {
		padding: 0.2rem 0;
		font-size: 0.92rem;
	}
	.left .link {
		display: inline-flex;
		align-items: center;
		min-height: var(--target);
	}
	.unfolded {
		padding: 0.4rem 0 1.2rem 0.7rem;
		border-left: 3px solid var(--heather);
		border-bottom: 1px solid var(--ink);
	}
	.fault {
		color: var(--brick);
	}
	@media (max-width: 900px) {
		main {
			display: block;
			overflow-y: auto;
			padding-bottom: 3rem;
		}
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
		.columns > section {
			overflow: visible;
		}
	}
	@media (max-width: 560px) {
		main {
			padding: 0.8rem 1rem 3rem;
		}
		h1 {
			font-size: 1.5rem;
		}
		.row {
			grid-template-columns: minmax(0, 1fr);
		}
		.shape,
		.names,
		.said,
		.with,
		.state,
		.where {
			grid-column: 1;
			grid-row: auto;
		}
		.asking > :global(*) {
			flex: 1 1 8.5rem;
			max-width: none;
		}
	}
</style>
