<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Where arrows landed at two distances or more: a speed where there is no chronograph. */
	interface Row {
		distance: string;
		crawl: string;
		height: string;
		arrows: string;
	}
	const bench = useBench();
	const blank = (): Row => ({ distance: '', crawl: '', height: '', arrows: '' });
	const USUAL = '3';
	let rows = $state([blank(), blank()]);
	const form = new TrialForm('marks', bench, () => (rows = [blank(), blank()]));
	const filled = $derived(rows.filter((r) => r.distance.trim()));
	const log = () =>
		form.log('arrow', async () => ({
			landed: await Promise.all(
				filled.map(async (r) => ({
					distance_m: await reference.read(r.distance, 'distance'),
					crawl_mm: r.crawl.trim() ? await reference.read(r.crawl, 'crawl') : 0,
					height_cm: r.height.trim() ? await reference.read(r.height, 'spot') : 0,
					arrows: Math.round(await reference.read(r.arrows.trim() || USUAL, 'count'))
				}))
			)
		}));
	form.keeps(
		'marks on the butt',
		() => ({ rows }),
		(was) => ({ rows } = was)
	);
	const edit = form.edit((was) => {
		rows = was.landed.map((one) => ({
			distance: reference.text(one.distance_m, 'distance', false),
			crawl: reference.text(one.crawl_mm ?? 0, 'crawl', false),
			height: reference.text(one.height_cm ?? 0, 'spot', false),
			arrows: String(one.arrows ?? USUAL)
		}));
	});
</script>

<TrialEntry
	{form}
	notesOn="these marks"
	label="Log where they landed"
	ready={filled.length > 1}
	hint="One crawl at two distances, aiming at the mark both times, tells the drop between them; two crawls that both hit will do too, less surely."
	onlog={log}
>
	{#snippet above()}
		{#each rows as row, i (i)}
			<div class="line">
				<label
					>at <input
						class="line-input num"
						bind:value={row.distance}
						aria-label="Distance {i + 1}"
					/>
					{reference.unit('distance').label}</label
				>
				<label
					>crawl <input
						class="line-input num"
						bind:value={row.crawl}
						placeholder="0"
						aria-label="Crawl at distance {i + 1}"
					/>
					{reference.unit('crawl').label}</label
				>
				<label
					>above the mark <input
						class="line-input num"
						bind:value={row.height}
						placeholder="− below"
						aria-label="Above the mark at distance {i + 1}"
					/>
					{reference.unit('spot').label}</label
				>
				<label
					>arrows <input
						class="line-input few"
						bind:value={row.arrows}
						placeholder={USUAL}
						inputmode="numeric"
						aria-label="Arrows at distance {i + 1}"
					/></label
				>
			</div>
		{/each}
	{/snippet}
	{#if rows.length < 6}
		<button type="button" class="link" onclick={() => (rows = [...rows, blank()])}
			>Another distance</button
		>
	{/if}
</TrialEntry>
<TrialList
	kinds={['marks']}
	empty="No marks were logged for a speed yet."
	edits="marks"
	onedit={edit}
/>

<style>
	.few {
		width: 3rem;
	}
</style>
