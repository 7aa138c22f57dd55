<script lang="ts">
	import { api, told, type Schemas } from '$lib/api/client';
	import { latest } from '$lib/bench/latest';
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';

	/** The tightest few of the whole, measured shafts, by weight and by spine; then the next few. */
	type Shaft = Schemas['Shaft'];
	type Sets = Schemas['MatchedSetOut'];
	interface Props {
		shafts: Shaft[];
		title?: string;
		/** The rig that they are on: what their spread costs there. */
		rig?: number | null;
	}
	let { shafts, title = 'What goes together', rig = null }: Props = $props();

	const LEAST = 2;
	const USUAL = 6;
	const fit = $derived(
		shafts.filter((s) => s.state === 'whole' && s.mass_gr != null && s.static_spine != null)
	);
	let count = $state('');
	/** What range of weight and of spine is borne alike; the usual ones until it is said. */
	let within = $state('');
	let spine = $state('');
	let sets = $state.raw<Sets | null>(null);
	let cost = $state.raw<Schemas['SpreadCost'] | null>(null);
	let problem = $state('');

	const ask = latest<void>(async (_, current) => {
		if (fit.length < LEAST) {
			sets = null;
			return;
		}
		problem = '';
		try {
			const typed = async (text: string, quantity: string) =>
				text.trim() ? await reference.read(text, quantity) : null;
			const many = (await typed(count, 'count')) ?? Math.min(USUAL, fit.length);
			const body = {
				shafts: fit.map((s) => ({
					id: String(s.number),
					mass_gr: s.mass_gr!,
					spine_28in: s.static_spine!
				})),
				count: Math.round(many),
				mass_scale_gr: await typed(within, 'mass'),
				spine_scale: await typed(spine, 'spine')
			};
			const came = await told(api.POST('/api/compute/matched-set', { body }));
			if (!current()) return;
			sets = came;
			cost = null;
			if (rig !== null) {
				const params = {
					path: { id: rig },
					query: { mass_range_gr: sets.mass_range_gr, spine_range: sets.spine_range }
				};
				cost = await told(api.GET('/api/rigs/{id}/spread', { params })).catch(() => null);
			}
		} catch (error) {
			sets = null;
			problem = (error as Error).message;
		}
	});
	$effect(() => {
		void [fit, count, within, spine];
		ask();
	});
</script>

<h3>{title}</h3>
{#if fit.length < LEAST}
	<p class="quiet">
		Weigh and spine some shafts: the tightest few of them are then named here, exactly.
	</p>
{:else}
	<div class="readings">
		<div class="line">
			<label
				>the tightest <input
					class="line-input few"
					bind:value={count}
					placeholder={String(Math.min(USUAL, fit.length))}
					inputmode="numeric"
					aria-label="How many shafts go together"
				/>
				of {fit.length}</label
			>
			<label
				>within <input
					class="line-input few"
					bind:value={within}
					placeholder={sets ? reference.text(sets.mass_scale_gr, 'mass', false) : ''}
					aria-label="Weight that may differ"
				/>
				{reference.unit('mass').label}</label
			>
			<label
				>and <input
					class="line-input few"
					bind:value={spine}
					placeholder={sets ? reference.text(sets.spine_scale, 'spine', false) : ''}
					aria-label="Spine that may differ"
				/> of spine</label
			>
		</div>
	</div>
	<div aria-live="polite">
		{#if problem}
			<p class="wrong">{problem}</p>
		{:else if sets}
			<p><strong>Shoot</strong> <SaidText said={sets.said} strong /></p>
			{#if cost}
				<p class="quiet">
					At {reference.text(cost.far_m, 'distance')} their weights put {reference.text(
						cost.high_cm,
						'spot'
					)} of height between the lightest and the heaviest{#if cost.wide_cm != null}, their spines
						about {reference.text(cost.wide_cm, 'spot')} sideways between the stiffest and the weakest,
						fletched{/if};
					{cost.own_known ? 'your own arrows scatter' : 'an ordinary archer’s arrows scatter'} ± {reference.text(
						cost.own_cm,
						'spot'
					)} there{Math.max(cost.high_cm, cost.wide_cm ?? 0) < cost.own_cm / 2
						? ': nobody would see it'
						: ''}.
				</p>
				{#if cost.wide_cm == null}
					<p class="quiet">
						What their spines do sideways is not told: the model of the shaft passing the bow is not
						tuned to such a bow or arrow.
					</p>
				{/if}
			{/if}
			{#each sets.next_sets as next (next.ids.join())}
				<p>Next <SaidText said={next.said} /></p>
			{/each}
			{#if sets.leftovers.length}
				<p class="quiet">For practice: {sets.leftovers.join(', ')}.</p>
			{/if}
		{/if}
	</div>
{/if}

<style>
	h3 {
		margin-top: 1.2rem;
	}
	label {
		display: inline-flex;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
	}
	.few {
		width: 3rem;
	}
	p {
		margin: 0.3rem 0;
	}
</style>
