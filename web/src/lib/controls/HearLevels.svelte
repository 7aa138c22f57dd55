<script module lang="ts">
	export interface Levels {
		levels: number[];
		by: 'meter' | 'recording' | 'simulated';
		tone_hz: number | null;
		tone_db: number | null;
	}
</script>

<script lang="ts">
	import { ApiProblem, type Schemas } from '$lib/api/client';
	import { recording } from '$lib/api/recording';
	import { sendJob } from '$lib/api/upload';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Microphone from './Microphone.svelte';

	/** Levels of some shots: typed, from a WAV, the microphone or the stand-in. */
	interface Props {
		label: string;
		/** More of the stand-in's query, what is being compared. */
		query: Record<string, string>;
		value: Levels | null;
		trial?: boolean;
	}
	let { label, query, value = $bindable(), trial = false }: Props = $props();

	const bench = useBench();
	let typed = $state('');
	let problem = $state<string | null>(null);
	let busy = $state(false);
	let takes = 0;
	let picker = $state<HTMLInputElement>();
	let field = $state<HTMLInputElement>();
	async function hear(file: File, by: Levels['by'] = 'recording'): Promise<void> {
		busy = true;
		problem = null;
		try {
			const sound = await sendJob<Schemas['Sound']>('sound', file);
			const shots = sound.events.filter((e) => e.kind === 'shot');
			if (shots.length === 0) throw new Error('No shot was found in it.');
			value = {
				by,
				levels: shots.map((e) => Math.round(e.level_db * 100) / 100),
				tone_hz: sound.tone?.[0] ?? null,
				tone_db: sound.tone?.[1] ?? null
			};
			typed = value.levels.join(' ');
		} catch (error) {
			problem = (error as Error).message;
		} finally {
			busy = false;
		}
	}

	async function simulate(): Promise<void> {
		busy = true;
		try {
			await hear(await recording(bench().id, { ...query, again: takes++ }), 'simulated');
		} catch (error) {
			problem = (error as Error).message;
			busy = false;
		}
	}

	let asked = 0;
	async function read(): Promise<void> {
		const mine = ++asked;
		problem = null;
		try {
			const levels = await reference.readAll(typed, 'level');
			if (mine === asked)
				value = levels.length ? { levels, by: 'meter', tone_hz: null, tone_db: null } : null;
		} catch (error) {
			if (mine !== asked) return;
			value = null;
			problem = (error as ApiProblem).message;
		}
	}

	/** To the levels, for the next trial by keyboard. */
	export function focus(): void {
		field?.focus();
	}
	export function clear(): void {
		typed = '';
		value = null;
	}
</script>

<div class="line">
	<strong>{label}</strong>
	<input
		bind:this={field}
		class="line-input num levels"
		bind:value={typed}
		oninput={read}
		placeholder="61.2 60.8 61.5"
		aria-label="{label}, levels in dB"
		data-trial={trial ? '' : undefined}
	/>
	<span class="quiet">dB</span>
	{#if busy}
		<progress aria-label="Listening"></progress>
	{:else}
		<button type="button" class="link" onclick={() => picker?.click()}>Recording (WAV)</button>
		<Microphone onfile={(file) => void hear(file)} onproblem={(reason) => (problem = reason)} />
		<button type="button" class="link" onclick={simulate}>Simulated recorder</button>
	{/if}
	<input
		bind:this={picker}
		type="file"
		accept=".wav,audio/wav"
		aria-label="{label}, WAV file"
		onchange={(e) => {
			const file = e.currentTarget.files?.[0];
			if (file) void hear(file);
			e.currentTarget.value = '';
		}}
		hidden
	/>
	{#if problem}<span class="wrong" role="alert">{problem}</span>{/if}
</div>

<style>
	.line .levels {
		width: 13rem;
	}
	strong {
		min-width: 4rem;
	}
	.line {
		margin-bottom: 0.45rem;
	}
</style>
