<script lang="ts">
	import { api, told } from '$lib/api/client';
	import { upload } from '$lib/api/upload';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import ChronographPlate from '$lib/plates/ChronographPlate.svelte';
	import Simulated from './Simulated.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Speeds of arrows of one weight, typed one after another; two weights tell the most. */
	const bench = useBench();
	const now = $derived(bench().bench.arrow?.mass_gr ?? null);
	let mass = $state('');
	let speeds = $state('');
	const form = new TrialForm('chronograph', bench, () => (mass = speeds = ''));
	let picker = $state<HTMLInputElement>();
	/** Shots of a file, by arrow weight: looked at, then logged. */
	let table = $state.raw<TrialOf<'chronograph'>[]>([]);

	async function take(event: Event): Promise<void> {
		const input = event.currentTarget as HTMLInputElement;
		const file = input.files?.[0];
		if (!file) return;
		form.problem = null;
		try {
			table = (await upload<{ readings: TrialOf<'chronograph'>[] }>('/api/speeds', file)).readings;
		} catch (error) {
			form.problem = (error as Error).message;
		}
		input.value = '';
	}
	async function logTable(): Promise<void> {
		for (const [i, trial] of table.entries()) {
			if (!(await bench().log('arrow', trial))) {
				table = table.slice(i);
				return;
			}
		}
		table = [];
	}
	const shoot = async (again: number) => {
		const own = mass.trim() ? await reference.read(mass, 'mass') : (now ?? 400);
		const body = { rig: bench().id, seed: bench().id, again, mass_gr: own, shots: 6, pace: 1 };
		return told(api.POST('/api/jobs/chronograph', { body }));
	};
	const log = () =>
		form.log('arrow', async () => ({
			mass_gr: await reference.read(mass, 'mass'),
			speeds_fps: await reference.readAll(speeds, 'speed')
		}));
	form.keeps(
		'speeds',
		() => ({ mass, speeds }),
		(was) => ({ mass, speeds } = was)
	);
	const edit = form.edit((was) => {
		mass = reference.text(was.mass_gr, 'mass', false);
		speeds = was.speeds_fps.map((v) => reference.text(v, 'speed', false)).join(' ');
	});
</script>

<ChronographPlate />
<TrialEntry
	{form}
	notesOn="the shots"
	label="Log these shots"
	ready={Boolean(mass.trim() && speeds.trim())}
	hint="A few shots of arrows weighed on a scale, drawn as always; then as many of a weight a quarter heavier or lighter."
	onlog={log}
>
	<label
		>arrow of <input
			class="line-input num"
			bind:value={mass}
			data-trial
			placeholder={now === null ? '' : reference.text(now, 'mass', false)}
			aria-label="Weight of the arrows shot"
		/>
		{reference.unit('mass').label}</label
	>
	<label
		>at <input
			class="line-input many"
			bind:value={speeds}
			placeholder="one speed after another"
			aria-label="Speeds of the shots"
		/>
		{reference.unit('speed').label}</label
	>
</TrialEntry>
<div class="readings line files">
	<button type="button" class="link" onclick={() => picker?.click()}>Speeds from CSV</button>
	<input
		bind:this={picker}
		type="file"
		accept=".csv,text/csv,text/plain"
		aria-label="CSV file of speeds"
		onchange={take}
		hidden
	/>
	<Simulated label="Try it without a chronograph" stop="Stop shooting" begin={shoot}>
		{#snippet children(read: { speeds_fps: number[] })}a made-up bow behind your numbers shoots
			{read.speeds_fps.map((v) => reference.text(v, 'speed', false)).join(', ')}
			{reference.unit('speed').label}.{/snippet}
	</Simulated>
</div>
{#if table.length}
	<p aria-live="polite">
		Read:
		{table
			.map((t) => `${t.speeds_fps.length} shots of ${reference.text(t.mass_gr, 'mass')}`)
			.join(', ')}.
		<button type="button" class="act plain" disabled={bench().busy} onclick={logTable}
			>Log them</button
		>
		<button type="button" class="link" onclick={() => (table = [])}>Leave them</button>
	</p>
{/if}
<TrialList
	kinds={['chronograph']}
	empty="Nothing was shot over a chronograph yet."
	edits="chronograph"
	onedit={edit}
/>

<style>
	.files {
		display: flex;
		flex-wrap: wrap;
		gap: 0 1.4rem;
		align-items: center;
		margin: 0.2rem 0;
		font-size: 0.93rem;
	}
	.many {
		width: 13rem;
	}
</style>
