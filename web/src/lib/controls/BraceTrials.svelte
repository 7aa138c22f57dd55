<script lang="ts">
	import { ApiProblem, type Schemas } from '$lib/api/client';
	import { recording } from '$lib/api/recording';
	import { useBench, type Entered, type TrialOf } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { Recorded } from '$lib/bench/recorded.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import SweepPlate from '$lib/plates/SweepPlate.svelte';
	import Microphone from './Microphone.svelte';
	import TrialList from './TrialList.svelte';

	/** Listening at one brace height after another: by ear, meter, recording or the stand-in. */
	type Trial = TrialOf<'brace'>;
	const bench = useBench();
	const one = new One();
	const now = $derived(bench().bench.brace?.brace_in ?? null);
	const next = $derived(bench().bench.listening?.curve?.next_in ?? null);
	const twists = $derived(bench().value('string.twists') as number | null);
	let brace = $state('');
	let turns = $state('');
	let arrows = $state(3);
	let levels = $state('');
	let feel = $state<number | null>(null);
	let group = $state('');
	let notes = $state('');
	const recorded = new Recorded();
	let fetching = $state<AbortController | null>(null);
	const listening = $derived(fetching !== null || recorded.busy);
	let takes = 0;
	let problem = $state<string | null>(null);
	let about = $state.raw<Entered | null>(null);
	/** The trial that is being put right: what this form does not ask stays as it was. */
	let putRight = $state.raw<Trial | null>(null);
	let picker = $state<HTMLInputElement>();
	let first = $state<HTMLInputElement>();

	const draft = useDraft(
		'brace trial',
		() => ({ brace, turns, arrows, levels, feel, group, notes, about, putRight }),
		(was) => ({ brace, turns, arrows, levels, feel, group, notes, about, putRight } = was)
	);

	const braceNow = async () =>
		brace.trim() === '' && now !== null ? now : reference.read(brace, 'brace');

	async function hear(file: File, from: 'recording' | 'simulated'): Promise<void> {
		await recorded.hear(file, from);
		arrows = recorded.shots.length || arrows;
	}

	async function record(): Promise<void> {
		problem = null;
		fetching = new AbortController();
		try {
			const at = await braceNow();
			const query = { brace_in: at, shots: arrows, again: takes++ };
			const file = await recording(bench().id, query, fetching.signal);
			if (!fetching.signal.aborted) await hear(file, 'simulated');
		} catch (error) {
			if (!fetching?.signal.aborted) problem = (error as Error).message;
		} finally {
			fetching = null;
		}
	}

	async function take(file: File | undefined): Promise<void> {
		if (!file) return;
		problem = null;
		try {
			await hear(file, 'recording');
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}

	function stop(): void {
		fetching?.abort();
		recorded.stop();
	}

	/** Levels that stand as they were keep their source; others were read off a meter. */
	function typedBy(heard: number[]): Trial['heard_by'] {
		if (putRight && heard.join() === (putRight.levels_db ?? []).join()) return putRight.heard_by;
		return heard.length ? 'meter' : 'ear';
	}

	function clear(): void {
		levels = group = notes = brace = turns = '';
		feel = about = putRight = null;
		recorded.leave();
		draft.settle();
	}

	async function log(): Promise<void> {
		problem = null;
		try {
			const heard = recorded.sound ? recorded.levels : await reference.readAll(levels, 'level');
			const trial = {
				kind: 'brace' as const,
				brace_height_in: await braceNow(),
				reference: putRight?.reference ?? bench().bench.rig.bow.brace_reference!,
				// What was left as it is shown was not measured: turns and brace tell of each other.
				twists: turns.trim() && brace.trim() ? await reference.read(turns, 'turns') : null,
				arrows,
				levels_db: heard,
				heard_by: recorded.sound ? recorded.by : typedBy(heard),
				feel,
				group_cm: group.trim() ? await reference.read(group, 'spot') : null,
				notes,
				day: putRight?.day ?? ''
			};
			if (await bench().log('brace', trial, about)) {
				clear();
				first?.focus(); // ready for the next
			} else problem = bench().fault;
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}

	function edit(line: Schemas['TrialLine']): void {
		if (line.trial.kind !== 'brace') return;
		const t = line.trial;
		clear();
		about = { seq: line.seq, digest: line.digest };
		putRight = t;
		brace = reference.text(t.brace_height_in, 'brace', false);
		turns = t.twists == null ? '' : String(t.twists);
		arrows = t.arrows ?? 3;
		levels = (t.levels_db ?? []).join(' ');
		feel = t.feel ?? null;
		group = t.group_cm == null ? '' : reference.text(t.group_cm, 'spot', false);
		notes = t.notes ?? '';
	}
</script>

<SweepPlate />
<form
	class="readings"
	onsubmit={one.on(log)}
	ondragover={(e) => e.preventDefault()}
	ondrop={(e) => {
		e.preventDefault();
		void take(e.dataTransfer?.files[0]);
	}}
>
	<div class="line">
		<strong>A trial</strong>
		<label>
			<input
				class="line-input num"
				bind:this={first}
				bind:value={brace}
				placeholder={now === null ? 'brace' : reference.text(now, 'brace', false)}
				aria-label="Brace listened to"
				data-trial
			/>
			<span class="quiet">{reference.unit('brace').label}</span>
		</label>
		{#if next !== null && about === null}
			<button
				type="button"
				class="link"
				onclick={() => (brace = reference.text(next, 'brace', false))}
				>next: {reference.text(next, 'brace')}</button
			>
		{/if}
		<label
			><input
				class="line-input num short"
				bind:value={turns}
				placeholder={twists === null ? 'turns' : String(twists)}
				aria-label="Turns in the string"
			/> <span class="quiet">turns</span></label
		>
		<label
			><input
				class="line-input num short"
				type="number"
				min="1"
				max="20"
				bind:value={arrows}
				aria-label="Arrows shot"
			/> <span class="quiet">arrows</span></label
		>
		<fieldset>
			<legend class="sr-only">Feel, 1 harsh to 5 smooth</legend>
			<span class="quiet">feel</span>
			{#each [1, 2, 3, 4, 5] as n (n)}
				<label
					><input
						type="radio"
						name="feel"
						checked={feel === n}
						onchange={() => (feel = n)}
						aria-label="Feel {n} of 5"
					/>{n}</label
				>
			{/each}
		</fieldset>
	</div>
	<div class="line">
		{#if listening}
			<progress aria-label="Listening" max="1" value={recorded.share ?? undefined}></progress>
			<button type="button" class="link" onclick={stop}>Stop listening</button>
		{:else if recorded.sound}
			<span
				><strong>{recorded.shots.length}</strong> shots heard, {recorded.by === 'simulated'
					? 'simulated'
					: 'recorded'}</span
			>
			<button type="button" class="link" onclick={() => recorded.leave()}
				>Leave the recording</button
			>
		{:else}
			<input
				class="line-input num levels"
				bind:value={levels}
				placeholder="levels, dB: 61.2 60.8 61.5"
				aria-label="Levels of the shots, dB"
			/>
			<button type="button" class="link" onclick={() => picker?.click()}>Recording (WAV)</button>
			<Microphone onfile={(file) => void take(file)} onproblem={(reason) => (problem = reason)} />
			<button type="button" class="link" onclick={record}>Simulated recorder</button>
		{/if}
		<input
			class="line-input num group"
			bind:value={group}
			placeholder="group, {reference.unit('spot').label}"
			aria-label="Group across"
		/>
		<input
			class="line-input notes"
			bind:value={notes}
			maxlength="200"
			placeholder="notes, conditions"
			aria-label="Notes on the trial"
		/>
		<button
			class="act"
			disabled={bench().busy || listening || (recorded.sound !== null && !recorded.levels.length)}
			>{about === null ? 'Log this trial' : 'Put it right'}</button
		>
		{#if about !== null}<button type="button" class="link" onclick={clear}>Leave it</button>{/if}
		<input
			bind:this={picker}
			type="file"
			accept=".wav,audio/wav"
			aria-label="WAV file of shots"
			onchange={(e) => {
				void take(e.currentTarget.files?.[0]);
				e.currentTarget.value = '';
			}}
			hidden
		/>
	</div>
	{#if recorded.sound}
		{#await import('./Recording.svelte') then { default: Recording }}
			<Recording {recorded} onproblem={(reason) => (problem = reason)} />
		{/await}
	{/if}
	<p class="quiet" class:wrong={problem} aria-live="polite">
		{problem ??
			'Clear range, safe backstop; no nock point fixed yet. Same place, same distance from the microphone, three shots; then some twists, and again. A recording can be dropped here.'}
	</p>
</form>
<TrialList
	kinds={['brace']}
	empty="No brace height was listened to yet."
	edits="brace"
	onedit={edit}
/>

<style>
	fieldset {
		display: flex;
		gap: 0.5rem;
		align-items: baseline;
	}
	fieldset label {
		display: flex;
		gap: 0.15rem;
		align-items: baseline;
	}
	input[type='radio'] {
		accent-color: var(--heather);
	}
	.readings .short {
		width: 3.4rem;
	}
	.readings .group {
		width: 6.6rem;
	}
	.readings .levels {
		width: 12rem;
	}
	.readings .notes {
		width: 7.6rem;
	}
	.line + .line {
		margin-top: 0.5rem;
	}
</style>
