<script lang="ts">
	import { onMount, tick } from 'svelte';
	import { page } from '$app/state';
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';
	import Hatch from '$lib/frame/Hatch.svelte';
	import Mark from '$lib/frame/Mark.svelte';
	import { terms } from '$lib/terms/terms.svelte';
	import TermText from '$lib/terms/TermText.svelte';
	import TermsPlate from '$lib/terms/TermsPlate.svelte';

	type Term = Schemas['Term'];
	const all = $derived(terms.all?.terms ?? []);
	const drawings = $derived(terms.all?.drawings ?? []);
	const words = $derived(new Map(all.map((t) => [t.id, t.word])));
	const schools = $derived(
		new Map(
			all.flatMap((t) =>
				t.schools.flatMap((s): [string, string][] => (s.part ? [[s.part, s.name]] : []))
			)
		)
	);
	const rig = $derived(page.url.searchParams.get('rig'));
	let sought = $state('');
	/** The word that was chosen stays lit; the one under the hand is lit while it is there. */
	let chosen = $state<string | null>(null);
	let under = $state<string | null>(null);
	const lit = $derived(under ?? chosen);

	const text = (t: Term): string =>
		[t.word, reference.said(t.says), ...t.schools.map((s) => `${s.name} ${reference.said(s.says)}`)]
			.join(' ')
			.toLowerCase();
	const found = $derived(
		new Set(
			all
				.filter((t) =>
					sought
						.toLowerCase()
						.split(/\s+/)
						.every((part) => text(t).includes(part))
				)
				.map((t) => t.id)
		)
	);
	const chapters = $derived(
		[...new Set(all.map((t) => t.about))]
			.map((about) => ({ about, terms: all.filter((t) => t.about === about && found.has(t.id)) }))
			.filter((c) => c.terms.length)
	);
	const pictures = (about: string) =>
		drawings
			.filter((d) => d.about === about)
			.filter((d) => !sought.trim() || d.shapes.some((s) => s.term && found.has(s.term)));
	const confusions = $derived(
		(terms.all?.confusions ?? []).filter(
			(c) => !sought.trim() || c.terms.some((id) => found.has(id))
		)
	);
	const termOf = (id: string) => all.find((t) => t.id === id);
	const lower = (d: Schemas['Drawing'], term: string | null) =>
		term !== null && d.shapes.some((s) => s.term === term) ? termOf(term) : undefined;

	function light(term: string | null, stays: boolean): void {
		under = stays ? null : term;
		if (stays) chosen = term === chosen ? null : term;
	}
	onMount(async () => {
		const id = decodeURIComponent(page.url.hash.slice(1));
		if (!words.has(id)) return;
		chosen = id;
		await tick();
		document.getElementById(id)?.scrollIntoView({ block: 'center' });
	});
</script>

<svelte:head><title>Terms · Lyrandis</title></svelte:head>
<Hatch />

<main id="main" tabindex="-1">
	<header>
		<a class="brand" href="/"><Mark />Lyrandis</a>
		{#if rig}<a class="link" href="/rig/{rig}/draw">Back to the rig</a>{/if}
	</header>
	<h1>Terms</h1>
	<p class="quiet">
		Each word once, in one sense. Touch a word and its part lights up; touch a part and its word
		does.
	</p>
	<p class="tools">
		<input
			class="line-input"
			type="search"
			bind:value={sought}
			placeholder="a word, or what it is about"
			aria-label="Search the terms"
		/>
		<button class="act plain" onclick={() => window.print()}>Print</button>
	</p>
	<p class="sr-only" aria-live="polite">{sought.trim() ? `${found.size} words found` : ''}</p>

	{#if terms.fault}
		<p class="fault" role="alert">{terms.fault}</p>
		<button class="act" onclick={() => terms.load()}>Try again</button>
	{:else if found.size === 0}
		<p>
			No word like “{sought}” stands here.
			<button class="link" onclick={() => (sought = '')}>Show all</button>
		</p>
	{/if}

	{#if confusions.length}
		<section aria-labelledby="mislead">
			<h2 id="mislead">Words that mislead</h2>
			{#each confusions as confusion (confusion.title)}
				<div class="confusion">
					<h3>{confusion.title}</h3>
					<p>{confusion.says}</p>
					<div class="beside">
						{#each confusion.terms as id (id)}
							{@const term = termOf(id)}
							{#if term}<TermText
									{term}
									lit={lit === id}
									anchor={false}
									onlit={() => light(id, true)}
								/>{/if}
						{/each}
					</div>
				</div>
			{/each}
		</section>
	{/if}

	{#each chapters as chapter (chapter.about)}
		<section aria-label={chapter.about}>
			<h2>{chapter.about}</h2>
			<div class="pictures">
				{#each pictures(chapter.about) as drawing (drawing.id)}
					{@const named = lower(drawing, lit)}
					<figure class:small={drawing.right - drawing.left < 2 * (drawing.top - drawing.bottom)}>
						<TermsPlate {drawing} {words} {schools} {lit} onlit={light} />
						<figcaption>
							<strong>{drawing.title}.</strong>
							{#if named}<span class="named">{named.word}</span>: {reference.said(
									named.says
								)}{:else}<span class="quiet">{drawing.says}</span>{/if}
						</figcaption>
					</figure>
				{/each}
			</div>
			<div class="words">
				{#each chapter.terms as term (term.id)}
					<TermText {term} lit={lit === term.id} onlit={() => light(term.id, true)} />
				{/each}
			</div>
		</section>
	{/each}
</main>

<style>
	main {
		max-width: 62rem;
		margin: 0 auto;
		padding: 1.6rem 1.5rem 4rem;
		outline: none;
	}
	header {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-bottom: 1.2rem;
	}
	h1 {
		font-size: 2.05rem;
	}
	h2 {
		font-size: 1.45rem;
		border-top: 1px solid var(--ink);
		padding-top: 0.7rem;
		margin: 2rem 0 0.6rem;
	}
	.tools {
		display: flex;
		gap: 1rem;
		margin: 0.8rem 0 0;
		position: sticky;
		top: 0;
		background: var(--paper);
		padding: 0.5rem 0;
		z-index: 5;
	}
	.tools input {
		max-width: 26rem;
		font-size: 1.05rem;
	}
	.confusion {
		margin-bottom: 1rem;
	}
	.confusion h3 {
		font-size: 1.12rem;
		font-weight: 600;
	}
	.beside {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
		gap: 0.3rem 1.2rem;
		margin-top: 0.3rem;
	}
	.pictures {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem 2rem;
		margin-bottom: 1rem;
	}
	figure {
		margin: 0;
		flex: 1 1 100%;
		min-width: 0;
		break-inside: avoid;
	}
	.small {
		flex: 1 1 20rem;
		max-width: 30rem;
	}
	figcaption {
		font-size: 0.88rem;
		min-height: 2.6em;
	}
	.named {
		color: var(--heather);
		font-weight: 700;
	}
	.words {
		columns: 2 20rem;
		column-gap: 2rem;
	}
	.fault {
		color: var(--brick);
	}
	@media print {
		.tools,
		header .link {
			display: none;
		}
		main {
			max-width: none;
			padding: 0;
		}
	}
</style>
