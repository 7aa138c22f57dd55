<script lang="ts">
	import { tick } from 'svelte';
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { Outgoing } from '$lib/bench/outgoing.svelte';
	import { refocus } from './focus';
	import Lazy from './Lazy.svelte';
	import Sending from './Sending.svelte';
	import Sheet from './Sheet.svelte';

	/** All of the data in one file: taken out, looked over, put back. */
	let { open = $bindable(false), onRestored }: { open: boolean; onRestored: () => void } = $props();

	type Data = Schemas['DataView'];
	let found = $state<Data | null>(null);
	let chosen = $state<File | null>(null);
	let looking = $state(false);
	let picker = $state<HTMLInputElement>();
	let pick = $state<HTMLButtonElement>();
	const attempt = new Attempt();
	const outgoing = new Outgoing();

	async function look(): Promise<void> {
		looking = true;
		await attempt.run(async () => {
			found = await told(api.GET('/api/data'));
		});
		looking = false;
	}

	function choose(event: Event): void {
		chosen = (event.currentTarget as HTMLInputElement).files?.[0] ?? null;
		found = null;
		attempt.fault = null;
	}

	async function putBack(file: File): Promise<void> {
		await attempt.run(async () => {
			found = await outgoing.send<Data>('restore', file);
		});
		drop(); // put back, or refused: the same file would be refused again
		await tick();
		refocus(pick);
		onRestored(); // stopped or refused, the list says what is kept
	}

	async function leave(): Promise<void> {
		drop();
		await tick();
		refocus(pick);
	}

	// What was found the last time it stood open is old by now.
	$effect(() => {
		if (open) return;
		found = null;
		attempt.fault = null;
		drop();
	});

	function drop(): void {
		chosen = null;
		if (picker) picker.value = '';
	}

	const size = (bytes: number) =>
		bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
</script>

<Sheet bind:open title="All of the data">
	<p class="quiet">
		Every rig with its whole history, and your units, in one SQLite file that other programs read
		too.
	</p>
	<div class="deeds">
		<a class="act" href="/api/data/backup" download>Back up</a>
		<button class="act plain" onclick={look} disabled={looking}>Look it over</button>
		<button
			bind:this={pick}
			class="act plain"
			onclick={() => picker?.click()}
			disabled={outgoing.share !== null}>Put a backup back</button
		>
		<input
			bind:this={picker}
			type="file"
			accept=".db,application/vnd.sqlite3"
			aria-label="A backup to put back"
			onchange={choose}
			hidden
		/>
	</div>
	{#if attempt.fault}<p class="fault" role="alert">{attempt.fault}</p>{/if}
	{#if outgoing.share !== null}
		<Sending {outgoing} reading="looking it over, then putting it back" />
	{:else if chosen}
		{@const file = chosen}
		<p>
			<strong>{file.name}</strong>, {size(file.size)}, takes the place of everything that is here.
			What is here now is kept in a file of its own beside it.
		</p>
		<p class="deeds">
			<button class="act" onclick={() => putBack(file)}>Put it back</button>
			<button class="act plain" onclick={leave}>Leave it</button>
		</p>
	{/if}
	{#if found}
		<div role="status">
			<p>
				{found.replaced ? 'Put back' : 'Here'}:
				<strong>{found.rigs} rig{found.rigs === 1 ? '' : 's'}</strong>, {size(found.bytes)}. {found.whole
					? 'All of it is whole and can be read.'
					: ''}
			</p>
			{#if found.replaced}
				<p class="quiet">What was here before lies in the data folder as {found.replaced}.</p>
			{/if}
			{#if found.faults.length || found.unreadable.length}
				<ul class="fault">
					{#each found.faults as text (text)}<li>Damaged: {text}</li>{/each}
					{#each found.unreadable as rig (rig.name + rig.reason)}
						<li>{rig.name} cannot be read: {rig.reason}</li>
					{/each}
				</ul>
			{/if}
		</div>
	{/if}
	{#if open}<Lazy of={() => import('./Devices.svelte')} />{/if}
</Sheet>

<style>
	p {
		margin: 0.6rem 0;
		max-width: 34rem;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
	}
	.deeds a {
		text-decoration: none;
	}
	.fault {
		color: var(--brick);
	}
	ul {
		padding-left: 1.2rem;
	}
</style>
