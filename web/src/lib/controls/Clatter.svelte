<script lang="ts">
	import { recording } from '$lib/api/recording';
	import { useBench } from '$lib/bench/bench.svelte';
	import { Recorded } from '$lib/bench/recorded.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import Microphone from './Microphone.svelte';

	/** Whether the shots of a recording clatter: the shaft knocking on the bow as it leaves. */
	const bench = useBench();
	const recorded = new Recorded();
	let problem = $state<string | null>(null);
	let fetching = $state(false);
	let picker = $state<HTMLInputElement>();
	let takes = 0;
	const form = new TrialForm('flight_read', bench, () => recorded.leave());
	/** All that the verdict rests on. */
	const shots = $derived(
		(recorded.sound?.events ?? []).filter((e) => e.kind === 'shot' && e.usable)
	);
	const knocks = $derived(shots.filter((s) => s.contact_ms != null));
	const told = $derived(recorded.sound?.clatter ?? null);

	async function hear(file: File, by: 'recording' | 'simulated' = 'recording'): Promise<void> {
		problem = null;
		try {
			await recorded.hear(file, by);
		} catch (error) {
			problem = (error as Error).message;
		}
	}
	async function simulate(): Promise<void> {
		fetching = true;
		try {
			const again = takes++;
			const clatter = again % 2 ? 'no' : 'yes';
			await hear(await recording(bench().id, { again, clatter }), 'simulated');
		} catch (error) {
			problem = (error as Error).message;
		} finally {
			fetching = false;
		}
	}
	const log = () =>
		form.log(
			'flight',
			async () => ({
				test: 'clatter',
				outcome: told ? 'heard' : 'none',
				nocks: [],
				arrows: shots.length,
				distance_m: null,
				shaft: 'fletched'
			}),
			$state.snapshot(bench().changes) as Record<string, unknown>
		);
</script>

<p class="line readings">
	{#if recorded.busy || fetching}
		<progress aria-label="Listening" max="1" value={recorded.share ?? undefined}></progress>
		<button type="button" class="link" onclick={() => recorded.stop()}>Stop listening</button>
	{:else}
		<button type="button" class="link" onclick={() => picker?.click()}>Recording (WAV)</button>
		<Microphone onfile={(file) => void hear(file)} onproblem={(reason) => (problem = reason)} />
		<button type="button" class="link" onclick={() => void simulate()}>Simulated recorder</button>
	{/if}
	<input
		bind:this={picker}
		type="file"
		accept=".wav,audio/wav"
		aria-label="Recording of some shots"
		hidden
		onchange={(e) => {
			const file = e.currentTarget.files?.[0];
			if (file) void hear(file);
			e.currentTarget.value = '';
		}}
	/>
	{#if problem ?? form.problem}<span class="wrong" role="alert">{problem ?? form.problem}</span
		>{/if}
</p>
{#if recorded.sound}
	{#await import('./Recording.svelte') then { default: Recording }}
		<Recording {recorded} onproblem={(reason) => (problem = reason)} />
	{/await}
	{#if shots.length}
		<p aria-live="polite">
			{#if told === null}Two shots at least are needed to tell.
			{:else}
				In <strong>{knocks.length} of {shots.length}</strong> shots something knocks before the
				arrow arrives{#if knocks.length}<span class="quiet"
						>, {knocks.map((s) => reference.text(s.contact_ms!, 'ms')).join(', ')} after the string</span
					>{/if}: {told ? 'a clatter' : 'no clatter'}.
			{/if}
		</p>
		{#if recorded.by === 'simulated'}
			<p class="quiet">The simulated recorder shows how it goes; nothing of it is logged.</p>
		{:else if told !== null}
			<button type="button" class="act" disabled={bench().busy} onclick={() => void log()}
				>Log {told ? 'a clatter' : 'no clatter'}</button
			>
		{/if}
	{/if}
{/if}
