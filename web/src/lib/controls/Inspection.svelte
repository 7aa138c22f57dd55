<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import InspectionPlate from '$lib/plates/InspectionPlate.svelte';
	import TrialList from './TrialList.svelte';

	/** Looking the bow over: each place with what to look for, logged with its day. */
	type Answer = 'nothing' | 'found' | '';
	type PlaceId = TrialOf<'inspection'>['looked'][number];
	const bench = useBench();
	const one = new One();
	const places = $derived(reference.catalog?.inspection ?? []);
	let answers = $state<Record<string, Answer>>({});
	let notes = $state('');
	const looked = $derived(places.map((p) => p.id).filter((id) => answers[id]) as PlaceId[]);
	const found = $derived(looked.filter((id) => answers[id] === 'found'));

	useDraft(
		'look-over',
		() => ({ answers, notes }),
		(was) => ({ answers, notes } = was)
	);

	async function log(): Promise<void> {
		const trial = { kind: 'inspection' as const, looked, found, notes, day: '' };
		if (await bench().log('bow-length', trial)) {
			answers = {};
			notes = '';
		}
	}

	/** What was found and is not free yet: only somebody's word takes it away. */
	let word = $state('');
	const open = $derived(bench().bench.to_release);

	useDraft(
		'release',
		() => ({ word }),
		(was) => ({ word } = was)
	);

	async function release(): Promise<void> {
		const trial = { kind: 'release' as const, places: open, word, notes: '', day: '' };
		if (await bench().log('bow-length', trial)) word = '';
	}
</script>

{#if open.length}
	<form class="release" onsubmit={one.on(release)}>
		<p>
			<strong>Found and not given free:</strong>
			{places
				.filter((p) => open.includes(p.id as PlaceId))
				.map((p) => p.title.toLowerCase())
				.join(', ')}. Another look does not take it away; a bowyer's or coach's word does.
		</p>
		<p class="line">
			<input
				class="line-input"
				bind:value={word}
				maxlength="80"
				placeholder="whose word"
				aria-label="Whose word gives it free"
			/>
			<button class="act plain" disabled={word.trim().length < 2 || bench().busy}
				>Log the release</button
			>
		</p>
	</form>
{/if}
<InspectionPlate {places} {looked} {found} />
<form onsubmit={one.on(log)}>
	<ul>
		{#each places as place, i (place.id)}
			<li>
				<strong>{place.title}</strong>
				<span class="look">{place.look} <span class="quiet">{place.means}</span></span>
				<span class="answers">
					{#each [['nothing', 'nothing'], ['found', 'found']] as const as [value, word] (value)}
						<label
							><input
								type="radio"
								name="place-{place.id}"
								checked={answers[place.id] === value}
								data-trial={i === 0 && value === 'nothing' ? '' : undefined}
								onchange={() => (answers[place.id] = value)}
							/>
							{word}</label
						>
					{/each}
				</span>
			</li>
		{/each}
	</ul>
	<p class="line">
		<button
			type="button"
			class="link"
			onclick={() => places.forEach((p) => (answers[p.id] ||= 'nothing'))}
			>Nothing found in the rest</button
		>
		<input
			class="line-input"
			bind:value={notes}
			maxlength="200"
			placeholder="notes (may stay empty)"
			aria-label="Notes on the bow"
		/>
		<button class="act" disabled={looked.length === 0 || bench().busy}>Log this look</button>
	</p>
	<p class="quiet">
		Unstrung first, then strung. In doubt do not shoot it: a bowyer's word wins over this list.
	</p>
</form>
<TrialList kinds={['inspection', 'release']} empty="This bow was not looked over here yet." />

<style>
	ul {
		list-style: none;
		padding: 0;
		margin: 0.4rem 0;
	}
	li {
		display: grid;
		grid-template-columns: 11rem 1fr auto;
		gap: 1rem;
		border-bottom: 1px solid var(--hair);
		padding: 0.25rem 0;
		font-size: 0.92rem;
		line-height: 1.3;
	}
	@media (max-width: 600px) {
		li {
			grid-template-columns: 1fr auto;
			gap: 0.2rem 1rem;
		}
		.look {
			grid-column: 1 / -1;
			grid-row: 2;
		}
	}
	.release {
		border-left: 3px solid var(--brick);
		padding-left: 0.8rem;
		margin-bottom: 0.8rem;
	}
	.answers {
		display: flex;
		gap: 1rem;
	}
	input[type='radio'] {
		accent-color: var(--heather);
	}
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0 1.2rem;
		align-items: center;
	}
	.line .line-input {
		flex: 1 1 11rem;
	}
	.quiet {
		font-size: 0.82rem;
	}
	p.quiet {
		margin: 0.3rem 0 0.7rem;
	}
</style>
