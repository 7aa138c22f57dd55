<script module lang="ts">
	export interface Levels {
		levels: number[];
		by: 'meter' | 'recording' | 'simulated';
		tone_hz: number | null;
		tone_db: number | null;
	}
</script>

<script lang="ts">
	import { ApiProblem } from '$lib/api/client';
	import { recording } from '$lib/api/recording';
	import { useBench } from '$lib/bench/bench.svelte';
	import { Recorded } from '$lib/bench/recorded.svelte';
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
	const recorded = new Recorded();
	let fetching = $state(false);
	const busy = $derived(fetching || recorded.busy);
	let takes = 0;
	let picker = $state<HTMLInputElement>();
	let field = $state<HTMLInputElement>();

	async function hear(file: File, by: 'recording' | 'simulated' = 'recording'): Promise<void> {
		problem = null;
		try {
			await recorded.hear(file, by);
		} catch (error) {
			problem = (error as Error).message;
		}
	}

	// What is heard follows what is marked, taken out and added.
	$effect(() => {
		const { sound, levels, by } = recorded;
		if (!sound) return;
		value = levels.length
			? { levels, by, tone_hz: sound.tone?.[0] ?? null, tone_db: sound.tone?.[1] ?? null }
			: null;
		typed = levels.join(' ');
	});

	async function simulate(): Promise<void> {
		fetching = true;
		try {
			const file = await recording(bench().id, { ...query, again: takes++ });
			fetching = false;
			await hear(file, 'simulated');
		} catch (error) {
			problem = (error as Error).message;
		} finally {
			fetching = false;
		}
	}

	let asked = 0;
	async function read(): Promise<void> {
		const mine = ++asked;
		problem = null;
		recorded.leave();
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
		recorded.leave();
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
		<progress aria-label="Listening" max="1" value={recorded.share ?? undefined}></progress>
		<button type="button" class="link" onclick={() => recorded.stop()}>Stop listening</button>
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
{#if recorded.sound}
	{#await import('./Recording.svelte') then { default: Recording }}
		<Recording {recorded} onproblem={(reason) => (problem = reason)} />
	{/await}
{/if}

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
