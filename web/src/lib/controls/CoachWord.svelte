<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import TrialList from './TrialList.svelte';

	/** A coach's word that a child may draw this bow, on its heavy side: the only way past the stop. */
	const bench = useBench();
	const weight = $derived(bench().bench.force_draw?.heaviest_lbf ?? null);
	let word = $state('');

	async function log(event: Event): Promise<void> {
		event.preventDefault();
		if (weight === null) return;
		const trial = { kind: 'coach' as const, weight_lbf: weight, word, notes: '', day: '' };
		if (await bench().log('weight', trial)) word = '';
	}
</script>

<form class="line" onsubmit={log}>
	<input
		class="line-input"
		bind:value={word}
		maxlength="80"
		placeholder="coach's name"
		aria-label="Name of the coach"
	/>
	<button class="act plain" disabled={word.trim().length < 2 || weight === null || bench().busy}
		>Log the coach's word{weight === null ? '' : ` for ${reference.text(weight, 'weight')}`}</button
	>
</form>
<TrialList kinds={['coach']} empty="No coach has given a word for this child yet." />

<style>
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 1rem;
		align-items: center;
		margin-top: 0.6rem;
	}
</style>
