<script lang="ts">
	import { ApiProblem, type Schemas } from '$lib/api/client';
	import { recording } from '$lib/api/recording';
	import { sendJob } from '$lib/api/upload';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SweepPlate from '$lib/plates/SweepPlate.svelte';
	import Microphone from './Microphone.svelte';
	import TrialList from './TrialList.svelte';

	/** Listening at one brace height after another: by ear, meter, recording or the stand-in. */
	type Trial = TrialOf<'brace'>;
	const bench = useBench();
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
	let by = $state<Trial['heard_by']>('ear');
	let sound = $state.raw<Schemas['Sound'] | null>(null);
	let out = $state<number[]>([]);
	let added = $state<number[]>([]);
	let at = $state('');
	let heardFile: File | null = null;
	let listening = $state<AbortController | null>(null);
	let takes = 0;
	let problem = $state<string | null>(null);
	let about = $state<number | null>(null);
	/** The trial that is being put right: what this form does not ask stays as it was. */
	let putRight: Trial | null = null;
	let picker = $state<HTMLInputElement>();

	const shots = $derived(
		(sound?.events ?? []).filter((e) => e.kind === 'shot' && !out.includes(e.at_s))
	);

	const braceNow = async () =>
		brace.trim() === '' && now !== null ? now : reference.read(brace, 'brace');

	async function hear(file: File, from: Trial['heard_by']): Promise<void> {
		out = [];
		added = [];
		heardFile = file;
		sound = await sendJob<Schemas['Sound']>('sound', file, {
			signal: listening?.signal
		});
		by = from;
		const found = sound.events.filter((e) => e.kind === 'shot').length;
		if (found === 0) problem = 'No shot was found in it. Record nearer, or type the levels.';
		else arrows = found;
	}

	async function record(): Promise<void> {
		problem = null;
		listening = new AbortController();
		try {
			const at = await braceNow();
			const query = { brace_in: at, shots: arrows, again: takes++ };
			const file = await recording(bench().id, query, listening.signal);
			if (!listening.signal.aborted) await hear(file, 'simulated');
		} catch (error) {
			if (!listening?.signal.aborted) problem = (error as Error).message;
		} finally {
			listening = null;
		}
	}

	async function take(file: File | undefined): Promise<void> {
		if (!file) return;
		problem = null;
		listening = new AbortController();
		try {
			await hear(file, 'recording');
		} catch (error) {
			problem = (error as ApiProblem).message;
		} finally {
			listening = null;
		}
	}

	/** Call a place in the recording a shot; the recording is listened to again with it. */
	async function add(seconds: number): Promise<void> {
		if (!heardFile || !Number.isFinite(seconds)) return;
		problem = null;
		const wanted = [...added, Math.round(seconds * 1000) / 1000];
		try {
			const query = wanted.map((t) => `added_s=${t}`).join('&');
			sound = await sendJob<Schemas['Sound']>('sound', heardFile, {}, `?${query}`);
			added = wanted;
			at = '';
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}

	async function addTyped(): Promise<void> {
		try {
			await add(await reference.read(at, 'seconds'));
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}

	/** Levels that stand as they were keep their source; others were read off a meter. */
	function typedBy(heard: number[]): Trial['heard_by'] {
		if (putRight && heard.join() === (putRight.levels_db ?? []).join()) return putRight.heard_by;
		return heard.length ? 'meter' : 'ear';
	}

	function press(at: number): void {
		out = out.includes(at) ? out.filter((o) => o !== at) : [...out, at];
	}

	function clear(): void {
		levels = group = notes = brace = turns = '';
		feel = about = putRight = null;
		sound = null;
		by = 'ear';
	}

	async function log(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		try {
			const heard = sound
				? shots.map((e) => Math.round(e.level_db * 100) / 100)
				: await reference.readAll(levels, 'level');
			const trial = {
				kind: 'brace' as const,
				brace_height_in: await braceNow(),
				reference: putRight?.reference ?? bench().bench.rig.bow.brace_reference!,
				twists: turns.trim() ? await reference.read(turns, 'turns') : twists,
				arrows,
				levels_db: heard,
				heard_by: sound ? by : typedBy(heard),
				feel,
				group_cm: group.trim() ? await reference.read(group, 'spot') : null,
				notes,
				day: putRight?.day ?? ''
			};
			if (await bench().log('brace', trial, about)) clear();
			else problem = bench().fault;
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}

	function edit(line: Schemas['TrialLine']): void {
		if (line.trial.kind !== 'brace') return;
		const t = line.trial;
		clear();
		about = line.seq;
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
	onsubmit={log}
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
			<progress aria-label="Listening"></progress>
			<button type="button" class="link" onclick={() => listening?.abort()}>Stop listening</button>
		{:else if sound}
			<span
				><strong>{shots.length}</strong> shots heard, {by === 'simulated'
					? 'simulated'
					: 'recorded'}</span
			>
			<button type="button" class="link" onclick={() => (sound = null)}>Leave the recording</button>
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
		<button class="act" disabled={bench().busy || listening !== null}
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
	{#if sound}
		{#await import('$lib/plates/SoundPlate.svelte') then { default: SoundPlate }}
			<SoundPlate {sound} {out} onpress={press} onadd={(seconds) => void add(seconds)} />
		{/await}
		<div class="line">
			<span class="quiet">A shot that was missed, at</span>
			<input class="line-input num short" bind:value={at} aria-label="Time of a missed shot" />
			<span class="quiet">s</span>
			<button type="button" class="link" disabled={!at.trim()} onclick={addTyped}>Add it</button>
		</div>
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
