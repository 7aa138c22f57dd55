<script lang="ts">
	import { onDestroy } from 'svelte';
	import { asAiming } from '$lib/bench/aiming.svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { RoutineTimer, type Step, type Voice } from '$lib/bench/routine.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** The archer's own steps of a shot, a plain timer for them, and a count of arrows. */
	const PATH = 'routine.steps';
	const MOST = 12;
	const ENDS = [1, 3, 6];
	const bench = useBench();
	const asked = asAiming(bench);
	const steps = $derived((bench().value(PATH) as Step[] | null) ?? []);
	const refused = $derived(bench().problem(PATH));
	const timer = new RoutineTimer();
	onDestroy(() => timer.leave());
	let fault = $state('');
	let shot = $state('');
	const form = new TrialForm('arrows_shot', bench, () => (shot = ''));
	const counted = $derived(Number.parseInt(shot, 10) || 0);
	const log = () =>
		form.log('crawls', async () => ({ arrows: Math.round(await reference.read(shot, 'count')) }));
	form.keeps(
		'arrows shot',
		() => ({ shot }),
		(was) => ({ shot } = was)
	);
	const edit = form.edit((was) => (shot = String(was.arrows)));

	const put = (changed: Step[]) => bench().set(PATH, $state.snapshot(changed));
	const change = (at: number, to: Partial<Step>) =>
		put(steps.map((s, i) => (i === at ? { ...s, ...to } : s)));
	async function takes(at: number, text: string): Promise<void> {
		fault = '';
		try {
			change(at, { seconds: await reference.read(text, 'seconds') });
		} catch (error) {
			fault = (error as Error).message;
		}
	}
</script>

<div class="timer" aria-live="polite">
	{#if timer.at >= 0}
		<p class="now">{steps[timer.at]?.says}</p>
		<p class="quiet num" aria-hidden="true">{timer.left.toFixed(1)} s</p>
	{:else if steps.length}
		<p class="now quiet">{steps.map((s) => s.says).join(' · ')}</p>
	{:else}
		<p>Write down your own few steps, as you say them to yourself: the same every time.</p>
	{/if}
</div>
<p class="line">
	<button
		type="button"
		class="act"
		disabled={!steps.length}
		onclick={() => (timer.at < 0 ? timer.start($state.snapshot(steps)) : timer.stop())}
		>{timer.at < 0 ? 'Start the timer' : 'Stop'}</button
	>
	<label
		>it is <select
			class="line-input"
			value={timer.voice}
			onchange={(e) => (timer.voice = e.currentTarget.value as Voice)}
			aria-label="Sound of the timer"
		>
			<option value="silent">silent</option>
			<option value="beeps">beeping</option>
			{#if timer.canSpeak}<option value="spoken">speaking</option>{/if}
		</select></label
	>
	{#if !timer.canSpeak}<span class="quiet">This browser has no voice.</span>{/if}
</p>
<ol>
	{#each steps as step, i (i)}
		<li class:here={i === timer.at}>
			<input
				class="line-input says"
				value={step.says}
				maxlength="60"
				aria-label="Step {i + 1}"
				onchange={(e) => e.currentTarget.value.trim() && change(i, { says: e.currentTarget.value })}
			/>
			<label
				><input
					class="line-input num"
					value={reference.text(step.seconds, 'seconds', false)}
					aria-label="Seconds of step {i + 1}"
					onchange={(e) => takes(i, e.currentTarget.value)}
				/> s</label
			>
			<button
				type="button"
				class="link"
				aria-label="Take step {i + 1} out"
				onclick={() => put(steps.filter((_, j) => j !== i))}>×</button
			>
		</li>
	{/each}
</ol>
<p class="line">
	<button
		type="button"
		class="link"
		disabled={steps.length >= MOST}
		onclick={() => put([...steps, { says: 'Step', seconds: 2 }])}>Add a step</button
	>
</p>
{#if fault || refused}<p class="wrong" role="alert">{fault || refused}</p>{/if}

<h2>Arrows of this session</h2>
<p class="line" role="group" aria-label="Count arrows">
	{#each ENDS as n (n)}
		<button type="button" class="act plain" onclick={() => (shot = String(counted + n))}
			>+ {n}</button
		>
	{/each}
	<button
		type="button"
		class="act plain"
		disabled={!counted}
		onclick={() => (shot = counted > 1 ? String(counted - 1) : '')}>− 1</button
	>
</p>
<TrialEntry
	{form}
	notesOn="this session"
	label="Log the session"
	ready={Boolean(shot.trim())}
	hint="All arrows, practice as well: strings, limbs and shoulders wear by them."
	onlog={log}
>
	<label
		>arrows <input
			class="line-input num"
			bind:value={shot}
			inputmode="numeric"
			data-trial
			aria-label="Arrows of this session"
		/></label
	>
</TrialEntry>
{#if asked.told?.arrow_tally.length}
	<table>
		<thead
			><tr
				><th scope="col">Logged arrows of</th><th scope="col">7 days</th><th scope="col">30 days</th
				><th scope="col">in all</th></tr
			></thead
		>
		<tbody>
			{#each asked.told.arrow_tally as t (t.part)}
				<tr
					><th scope="row">this {t.part}</th><td>{t.week}</td><td>{t.month}</td><td>{t.arrows}</td
					></tr
				>
			{/each}
		</tbody>
	</table>
{/if}
<TrialList
	kinds={['arrows_shot']}
	empty="No session was counted yet."
	edits="arrows_shot"
	onedit={edit}
/>

<style>
	.timer {
		min-height: 3.4rem;
	}
	.now {
		font-family: var(--display, inherit);
		font-size: 1.5rem;
		margin: 0.2rem 0;
	}
	.now.quiet {
		font-size: 1.02rem;
	}
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 1rem;
		align-items: baseline;
		margin: 0.5rem 0;
	}
	.line .link {
		padding-block: 3px;
	}
	select {
		width: 8rem;
	}
	ol {
		padding-left: 1.4rem;
		margin: 0.3rem 0;
	}
	li {
		padding: 0.1rem 0;
	}
	li.here {
		background: var(--heather-wash);
	}
	.says {
		width: min(18rem, 52%);
	}
	li .num {
		width: 3.2rem;
	}
	li .link {
		min-width: 24px;
		min-height: 24px;
		text-decoration: none;
	}
	@media (max-width: 899px) {
		li .link {
			min-width: 44px;
			min-height: 44px;
		}
	}
	h2 {
		margin-top: 1rem;
	}
	table {
		font-size: 0.93rem;
		margin: 0.4rem 0;
	}
	th {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
	}
	td,
	th {
		padding: 0.15rem 1.2rem 0.15rem 0;
		border-bottom: 1px solid var(--hair);
	}
	.wrong {
		color: var(--brick);
	}
</style>
