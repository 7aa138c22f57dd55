<script lang="ts">
	import { api, ApiProblem, told, type Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import SaidText from '$lib/format/SaidText.svelte';

	/** How many turns bring the brace where it is wanted; learns from the brace trials. */
	const bench = useBench();
	const rig = $derived(bench().bench.rig);
	const brace = $derived(bench().bench.brace);
	const twists = $derived(bench().value('string.twists') as number | null);
	let wanted = $state('');
	let answer = $state.raw<Schemas['TwistsOut'] | null>(null);
	let problem = $state<string | null>(null);
	let asked = 0;

	/** Brace heights measured at a count of turns, to the same reference as now. */
	const seen = $derived(
		bench()
			.kept.trials.filter((t) => !t.struck)
			.map((t) => t.trial)
			.filter((t) => t.kind === 'brace')
			.filter((t) => t.twists != null && t.reference === rig.bow?.brace_reference)
			.map((t) => ({ twists: t.twists!, brace_in: t.brace_height_in }))
	);

	$effect(() => {
		const mine = ++asked;
		if (wanted.trim() === '' || twists === null || !brace) {
			answer = null;
			problem = null;
			return;
		}
		const text = wanted;
		const body = {
			bow: rig.bow!,
			string: rig.string!,
			twists_now: twists,
			brace_now_in: brace.brace_in,
			observed: seen
		};
		void (async () => {
			try {
				const parse = { text, quantity: 'brace', unit: reference.unit('brace').id };
				const { value } = await told(api.POST('/api/units/parse', { body: parse }));
				const came = await told(
					api.POST('/api/compute/twists', { body: { ...body, brace_wanted_in: value } })
				);
				if (mine !== asked) return;
				answer = came;
				problem = null;
			} catch (error) {
				if (mine !== asked) return;
				answer = null;
				problem = (error as ApiProblem).message;
			}
		})();
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
