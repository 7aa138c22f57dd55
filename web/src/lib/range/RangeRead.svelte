<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import TailDrawn, { TAILS, type Tail } from '$lib/controls/TailDrawn.svelte';
	import { today } from '$lib/format/day';
	import { exactly } from '$lib/format/measure';
	import SaidText from '$lib/format/SaidText.svelte';
	import { countedBy, crawlOf, lineAt, type Taken } from './setting';
	import type { AtRange } from './unlogged.svelte';

	/** A read: tails in the butt, nocks on the block, or any other test by what it showed. */
	let { view, outbox, unlogged }: AtRange = $props();
	type Test = NonNullable<Taken['bench']['reading']>['tests'][number];
	const BLOCK = [7, 8, 9, 4, 5, 6, 1, 2, 3];
	const MOST = 24;
	const tests = $derived(
		[...(view.bench.reading?.tests ?? [])]
			.filter((t) => !t.left_out)
			.sort((a, b) => (b.worth ?? -1) - (a.worth ?? -1))
	);
	/** How the end was shot that may be read. */
	const distance = $derived(unlogged.distance);
	const crawl_mm = $derived(crawlOf(view, lineAt(view, distance), unlogged.own));
	const test = $derived(tests.find((t) => t.id === unlogged.test) ?? null);
	let near = $state(true);
	const nocks = $derived(unlogged.nocks);
	const height = $derived(view.bench.rig.nock_height_mm ?? view.bench.nock?.height_mm ?? null);
	const words = (cell: number) =>
		view.bench.reading?.block.find((place) => place.cell === cell)?.words ?? String(cell);
	const walks = $derived(countedBy(view) !== null);
	const answer = $derived(
		view.bench.stations.find((s) => s.station === (test ? 'flight' : 'nock-point'))?.answer
	);
	const where = $derived(
		`${exactly(reference.text(distance, 'distance'))}${walks ? `, ${reference.text(crawl_mm, 'crawl')} crawl` : ''}`
	);

	function tails(tail: Tail): void {
		if (height === null) return;
		outbox.log(`tails: ${tail.word.toLowerCase()}${near ? '' : ` from ${where}`}`, {
			station: 'nock-point',
			// The height that was shot at is kept with its read.
			changes: view.bench.rig.nock_height_mm == null ? { nock_height_mm: height } : {},
			trial: {
				kind: 'nock_read',
				height_mm: height,
				tail: tail.id,
				arrows: 2,
				distance_m: near ? null : distance,
				shaft: 'fletched',
				crawl_mm: near || !walks ? null : crawl_mm,
				notes: '',
				day: today()
			}
		});
	}
	function read(told: Test, outcome: string): void {
		const shown = told.on_block
			? nocks.map(words).join(', ')
			: told.outcomes.find((o) => o.id === outcome)?.words;
		outbox.log(`${told.title}: ${shown}`, {
			station: 'flight',
			trial: {
				kind: 'flight_read',
				test: told.id,
				outcome: told.on_block ? '' : outcome,
				nocks: told.on_block ? $state.snapshot(nocks) : [],
				arrows: told.on_block ? nocks.length : told.arrows,
				distance_m: null,
				shaft: 'fletched',
				notes: '',
				day: today()
			}
		});
		unlogged.nocks = [];
	}
	const put = (cell: number) => (unlogged.nocks = [...nocks, cell].slice(-MOST));

	/** The number block: tails by 8 5 2, nocks by 1 to 9 and Enter, outcomes by their number. */
	export function key(event: KeyboardEvent): boolean {
		const digit = /^[1-9]$/.test(event.key) ? Number(event.key) : 0;
		if (!test) {
			const tail = TAILS.find((t) => t.key === event.key);
			if (!tail) return false;
			tails(tail);
		} else if (test.on_block) {
			if (digit) put(digit);
			else if (event.key === 'Backspace') unlogged.nocks = nocks.slice(0, -1);
			else if (event.key === 'Enter' && nocks.length) read(test, '');
			else return false;
		} else {
			const outcome = test.outcomes[digit - 1];
			if (!outcome) return false;
			read(test, outcome.id);
		}
		return true;
	}
</script>

<label class="which"
	>Read
	<select class="choose" bind:value={unlogged.test} onchange={() => (unlogged.nocks = [])}>
		<option value="tails">Tails in the butt</option>
		{#each tests as t (t.id)}<option value={t.id}>{t.title}</option>{/each}
	</select></label
>
{#if !test}
	{#if height === null}
		<p class="quiet">
			The nock point's height is not known here: measure it at the rig's Nock point page first.
		</p>
	{:else}
		<p class="quiet">
			Nock point {reference.text(height, 'nock_height')}: how most tails stood, seen from the side.
		</p>
		<div class="tails" role="group" aria-label="How most tails stood in the butt">
			{#each TAILS as tail (tail.id)}
				<button class="act plain" onclick={() => tails(tail)}>
					<TailDrawn turn={tail.turn} width={64} />
					{tail.word}<kbd>{tail.key}</kbd>
				</button>
			{/each}
		</div>
		<div class="where" role="group" aria-label="Where it was shot">
			<button class="act plain" aria-pressed={near} onclick={() => (near = true)}
				>A few steps</button
			>
			<button class="act plain" aria-pressed={!near} onclick={() => (near = false)}>{where}</button>
		</div>
	{/if}
{:else}
	<p class="quiet">{test.how}</p>
	{#if test.on_block}
		<div class="block" role="group" aria-label="Where each arrow nock leans, as you see it">
			{#each BLOCK as cell (cell)}
				<button class="act plain" aria-label="Nock {words(cell)}, {cell}" onclick={() => put(cell)}>
					<kbd>{cell}</kbd>{#if nocks.includes(cell)}<span class="dots" aria-hidden="true"
							>{'●'.repeat(nocks.filter((n) => n === cell).length)}</span
						>{/if}
				</button>
			{/each}
		</div>
		<p class="told" aria-live="polite">{nocks.map(words).join(', ')}</p>
		<div class="where">
			<button
				class="act plain"
				disabled={!nocks.length}
				onclick={() => (unlogged.nocks = nocks.slice(0, -1))}>Take one back</button
			>
			<button class="act" disabled={!nocks.length} onclick={() => read(test, '')}
				>Log {nocks.length || 'the read'}</button
			>
		</div>
	{:else}
		<div class="outcomes" role="group" aria-label="What it showed">
			{#each test.outcomes as outcome, i (outcome.id)}
				<button class="act plain" onclick={() => read(test, outcome.id)}
					>{outcome.words}<kbd>{i + 1}</kbd></button
				>
			{/each}
		</div>
	{/if}
{/if}
{#if answer}<p class="quiet answer"><SaidText said={answer} /></p>{/if}

<style>
	.which {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		margin-bottom: 0.4rem;
	}
	.which select {
		flex: 1;
		font-size: 1.1rem;
	}
	.tails,
	.outcomes {
		display: grid;
		gap: 0.6rem;
		margin: 0.6rem 0;
	}
	.tails .act,
	.outcomes .act {
		min-height: 64px;
		font-size: 1.15rem;
		display: flex;
		gap: 1rem;
		align-items: center;
		text-align: left;
	}
	.tails kbd,
	.outcomes kbd {
		margin-left: auto;
	}
	.where {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.6rem;
	}
	.where .act {
		min-height: 52px;
	}
	.block {
		display: grid;
		grid-template-columns: repeat(3, 1fr);
		gap: 6px;
		max-width: 22rem;
		margin: 0.6rem auto;
	}
	.block .act {
		min-height: 84px;
		padding: 0;
		font-size: 1.1rem;
	}
	.block kbd {
		margin: 0;
	}
	.dots {
		display: block;
		color: var(--heather);
		letter-spacing: 0.1em;
	}
	.told {
		min-height: 1.5rem;
		text-align: center;
		font-weight: 600;
	}
	.answer {
		margin: 1rem 0;
	}
	@media (pointer: coarse) {
		.tails kbd,
		.outcomes kbd {
			display: none;
		}
	}
</style>
