<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { day } from '$lib/format/day';
	import Measure from '$lib/format/Measure.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import MeasureField from './MeasureField.svelte';

	/** The plan to go up in weight, and its steps with their earliest days. */
	const bench = useBench();
	const plan = $derived(
		bench().bench.plan ?? { steps: [], held_on: null, due: false, problem: null }
	);
	const starts = $derived((bench().value('step_up.starts') as string | undefined) ?? '');
	const saved = $derived(!bench().dirty && plan.steps.length > 0);
</script>

<div class="grid">
	<MeasureField path="step_up.goal_lbf" slider={false} />
	<MeasureField path="step_up.step_lbf" slider={false} />
	<MeasureField path="step_up.weeks" slider={false} />
	<label>
		<span>Starts</span>
		<input
			type="date"
			value={starts}
			onchange={(e) => bench().set('step_up.starts', e.currentTarget.value)}
		/>
	</label>
</div>
{#if plan.problem}
	<p class="wrong" role="alert"><SaidText said={plan.problem} /></p>
{:else if plan.steps.length === 0}
	<p class="quiet">
		Set a goal and the steps stand here with their days. Most archers shoot better for staying where
		they are a season longer.
	</p>
{:else}
	<ol>
		{#each plan.steps as step (step.number)}
			<li>
				<span>{plan.due && step.number === 1 ? 'Now' : day(step.day, 'weekday')}</span>
				<strong><Measure value={{ value: step.weight_lbf, quantity: 'weight' }} /></strong>
				<span class="quiet"
					>{step.earned ? `earned ${day(plan.held_on!)} by` : 'after'} {step.earned_by}</span
				>
			</li>
		{/each}
	</ol>
	<p class="quiet">
		{#if plan.held_on === null}The weeks begin with three holds of what you draw now.{/if} The days are
		the earliest: a step waits for the holds before it. Stop at pain; a coach's word wins.
		{#if saved}<a class="link" href="/api/rigs/{bench().id}/step-up.ics" download
				>Days for your calendar</a
			>{/if}
	</p>
{/if}

<style>
	.grid {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr));
		gap: 0.4rem 1.3rem;
	}
	label span {
		display: block;
		color: var(--quiet);
		font-size: 0.82rem;
	}
	input[type='date'] {
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--line);
		color: var(--ink);
		padding: 0.25rem 0;
		width: 100%;
	}
	ol {
		list-style: none;
		padding: 0;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 13rem) 5rem minmax(0, 1fr);
		gap: 0 1rem;
		border-bottom: 1px solid var(--hair);
		padding: 0.22rem 0;
		font-size: 0.93rem;
	}
	@media (max-width: 600px) {
		li {
			grid-template-columns: 1fr auto;
		}
		li > :last-child {
			grid-column: 1 / -1;
		}
	}
	p {
		font-size: 0.85rem;
		margin-top: 0.4rem;
	}
	.wrong {
		color: var(--brick);
	}
</style>
