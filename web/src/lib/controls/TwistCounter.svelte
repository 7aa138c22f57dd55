<script lang="ts">
	import { api, ApiProblem, told, type Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { latest } from '$lib/bench/latest';
	import { reference } from '$lib/bench/reference.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import SaidText from '$lib/format/SaidText.svelte';

	/** How many turns bring the brace where it is wanted; learns from the brace trials. */
	const bench = useBench();
	const rig = $derived(bench().bench.rig);
	const brace = $derived(bench().bench.brace);
	const twists = $derived(bench().value('string.twists') as number | null);
	let wanted = $state('');
	let answer = $state.raw<Schemas['Twisted'] | null>(null);
	let problem = $state<string | null>(null);

	const seen = $derived(bench().bench.turns_seen ?? []);

	type Question = { text: string; body: Omit<Schemas['TwistsIn'], 'brace_wanted_in'> } | null;
	const ask = latest<Question>(async (question, current) => {
		answer = problem = null;
		if (!question) return;
		try {
			const brace_wanted_in = await reference.read(question.text, 'brace');
			const body = { ...question.body, brace_wanted_in };
			const came = await told(api.POST('/api/compute/twists', { body }));
			if (current()) answer = came;
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	});
	$effect(() => {
		const body = twists !== null &&
			brace && {
				bow: rig.bow,
				string: rig.string,
				twists_now: twists,
				brace_now_in: brace.brace_in,
				observed: seen
			};
		ask(body && wanted.trim() ? { text: wanted, body } : null);
	});
	const words = { stop: 'Stop', mind: 'Mind', fine: 'Fine' };
</script>

{#if twists === null}
	<p class="quiet">
		Count the turns in the string and set them above: the effect of a turn grows with those already
		in, so no single rule holds.
	</p>
{:else if brace}
	<div class="readings">
		<div class="line">
			<strong>Twists</strong>
			<span
				>{twists} turns give <Measure value={{ value: brace.brace_in, quantity: 'brace' }} />;
				wanted</span
			>
			<input
				class="line-input num"
				bind:value={wanted}
				placeholder={reference.text(brace.brace_in + 0.125, 'brace', false)}
				aria-label="Brace height wanted"
				data-trial
			/>
			<span class="quiet">{reference.unit('brace').label}</span>
		</div>
	</div>
	<div aria-live="polite">
		{#if problem}
			<p class="wrong">{problem}</p>
		{:else if answer}
			<p class="big">
				{answer.turns >= 0 ? 'Add' : 'Take out'}
				<strong
					><Measure
						value={{
							value: Math.abs(answer.turns),
							quantity: 'turns',
							plus_minus: answer.turns_plus_minus
						}}
					/></strong
				>; the string gets <Measure
					value={{ value: Math.abs(answer.string_change_mm), quantity: 'small' }}
				/>
				{answer.string_change_mm < 0 ? 'shorter' : 'longer'}, the next turn moves the brace
				<Measure value={{ value: answer.brace_per_turn_mm, quantity: 'small' }} />.
			</p>
			<p class="quiet">
				{#if seen.length}Learnt from {seen.length} measured brace height{seen.length > 1
						? 's'
						: ''}: a turn does {answer.factor.toFixed(2)} ± {answer.factor_plus_minus.toFixed(2)} of what
					the model says.{:else}By the model alone, known to about a quarter until a change was
					measured: log a brace trial with its turns.{/if}
			</p>
			{#each answer.findings as finding, i (i)}
				<p class={finding.level}>
					<strong>{words[finding.level]}.</strong>
					<SaidText said={finding.said} />
				</p>
			{/each}
		{:else}
			<p class="quiet">Type the brace height you want. Unstring with a stringer to turn.</p>
		{/if}
	</div>
{/if}

<style>
	.big {
		font-size: 1.1rem;
		margin: 0.5rem 0 0.2rem;
	}
	.quiet,
	.stop,
	.mind,
	.fine {
		font-size: 0.9rem;
	}
	.stop strong,
	.wrong {
		color: var(--brick);
	}
	.mind strong {
		color: var(--ochre);
	}
	.fine strong {
		color: var(--moss);
	}
</style>
