<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import TrialList from './TrialList.svelte';

	/** A coach's word that a child may draw this bow, or a coach's or doctor's after pain. */
	const bench = useBench();
	const one = new One();
	const hurt = $derived(bench().bench.hurt);
	const weight = $derived(hurt?.weight_lbf ?? bench().bench.force_draw?.heaviest_lbf ?? null);
	const whose = $derived(hurt ? "coach's or doctor's" : "coach's");
	let word = $state('');

	useDraft(
		"coach's word",
		() => ({ word }),
		(was) => ({ word } = was)
	);

	async function log(): Promise<void> {
		if (weight === null) return;
		const trial = { kind: 'coach' as const, weight_lbf: weight, word, notes: '', day: '' };
		if (await bench().log('weight', trial)) word = '';
	}
</script>

<form class="line" onsubmit={one.on(log)}>
	<input
		class="line-input"
		bind:value={word}
		maxlength="80"
		placeholder="{whose} name"
		aria-label="Name of the {hurt ? 'coach or doctor' : 'coach'}"
	/>
	<button class="act plain" disabled={word.trim().length < 2 || weight === null || bench().busy}
		>Log the {whose} word{weight === null ? '' : ` for ${reference.text(weight, 'weight')}`}</button
	>
</form>
<TrialList kinds={['coach']} empty="Nobody has given a word yet." />

<style>
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 1rem;
		align-items: center;
		margin-top: 0.6rem;
	}
</style>
