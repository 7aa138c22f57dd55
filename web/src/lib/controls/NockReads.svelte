<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import TailDrawn, { TAILS } from './TailDrawn.svelte';
	import TrialList from './TrialList.svelte';

	/** How the tails stood in the butt, height by height: a tap, or 8 5 2 on the number block. */
	type Read = TrialOf<'nock_read'>;
	const HEIGHT = 'nock_height_mm';
	const bench = useBench();
	/** As it is set now, kept or not; the ordinary start where it was never set. */
	const here = $derived(
		(bench().value(HEIGHT) as number | null) ?? bench().bench.nock?.height_mm ?? 0
	);
	/** How many arrows a read is of, unless it is said. */
	const USUAL = '2';
	let arrows = $state(USUAL);
	let distance = $state('');
	let height = $state('');
	let crawl = $state('');
	/** Only who walks the string says with which crawl it was shot. */
	const walks = $derived(
		bench().bench.rig.archer.release === 'three_under' && bench().bench.rig.aim.allowed !== 'none'
	);
	let shaft = $state<NonNullable<Read['shaft']>>('fletched');
	// Arrows and distance stay for the next read.
	const form = new TrialForm('nock_read', bench, () => (height = ''));

	/** The height that was shot at is kept with its read. */
	const moved = $derived(
		height.trim() || bench().kept.rig[HEIGHT] === here ? {} : { [HEIGHT]: here }
	);
	const log = (tail: Read['tail']) =>
		form.log(
			'nock-point',
			async () => ({
				height_mm: height.trim() ? await reference.read(height, 'nock_height') : here,
				tail,
				arrows: Math.round(await reference.read(arrows.trim() || USUAL, 'count')),
				distance_m: distance.trim() ? await reference.read(distance, 'distance') : null,
				shaft,
				crawl_mm: walks && crawl.trim() ? await reference.read(crawl, 'crawl') : null
			}),
			moved
		);
	form.keeps(
		'read of the tails',
		() => ({ arrows, distance, height, crawl, shaft }),
		(was) => ({ arrows, distance, height, crawl, shaft } = was)
	);
	const edit = form.edit((was) => {
		height = reference.text(was.height_mm, 'nock_height', false);
		arrows = String(was.arrows ?? USUAL);
		distance = was.distance_m == null ? '' : reference.text(was.distance_m, 'distance', false);
		shaft = was.shaft ?? 'fletched';
		crawl = was.crawl_mm == null ? '' : reference.text(was.crawl_mm, 'crawl', false);
	});

	function key(event: KeyboardEvent): void {
		if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement)
			return;
		const tail = TAILS.find((t) => t.key === event.key);
		if (!tail || event.ctrlKey || event.metaKey || event.altKey || bench().busy) return;
		event.preventDefault();
		void log(tail.id);
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<form class="readings" onsubmit={(e) => e.preventDefault()} onkeydown={key}>
	<div class="tails" role="group" aria-label="How most tails stood in the butt">
		{#each TAILS as tail (tail.id)}
			<button
				type="button"
				class="act plain"
				disabled={bench().busy}
				data-trial={tail.id === 'level' ? '' : undefined}
				onclick={() => log(tail.id)}
			>
				<TailDrawn turn={tail.turn} />
				{tail.word} <kbd>{tail.key}</kbd>
			</button>
		{/each}
	</div>
	<div class="line">
		<label
			>at <input
				class="line-input num"
				bind:value={height}
				placeholder={reference.text(here, 'nock_height', false)}
				aria-label="Nock point height at this read"
			/>
			{reference.unit('nock_height').label}</label
		>
		<label
			>arrows <input
				class="line-input few"
				bind:value={arrows}
				inputmode="numeric"
				aria-label="Arrows shot"
			/></label
		>
		<label
			>from <input
				class="line-input num"
				bind:value={distance}
				aria-label="Distance of this read"
			/>
			{reference.unit('distance').label}</label
		>
		{#if walks}
			<label
				>crawl <input class="line-input few" bind:value={crawl} aria-label="Crawl of this read" />
				{reference.unit('crawl').label}</label
			>
		{/if}
		<select bind:value={shaft} aria-label="Fletched or bare">
			<option value="fletched">fletched</option>
			<option value="bare">bare shafts</option>
		</select>
		{#if form.about !== null}
			<strong>Put right: press what it was.</strong>
			<button type="button" class="link" onclick={() => form.clear()}>Leave it</button>
		{/if}
	</div>
	<p class="quiet" class:wrong={form.problem} aria-live="polite">
		{form.problem ??
			'A few steps from the butt, at chest height: look at the arrows from the side. Only up and down counts here.'}
	</p>
</form>
<TrialList kinds={['nock_read']} empty="No tails were read yet." edits="nock_read" onedit={edit} />

<style>
	.tails {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin-bottom: 0.5rem;
	}
	.tails button {
		display: inline-flex;
		gap: 0.6rem;
		align-items: center;
		min-height: 44px;
		padding: 0.2rem 0.9rem;
	}
	kbd {
		font-family: var(--mono);
		color: var(--quiet);
	}
	label {
		display: inline-flex;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
	}
	.num {
		width: 4.5rem;
	}
	.few {
		width: 2.4rem;
	}
	@media (max-width: 480px) {
		kbd {
			display: none;
		}
		.tails button {
			flex: 1 1 8rem;
			justify-content: center;
		}
	}
</style>
