<script lang="ts">
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';

	/** A rig that cannot be opened: why, and what can still be done with it. */
	let { id, reason, onOpened }: { id: number; reason: string; onOpened: () => void } = $props();

	type Note = Schemas['RigNote'];
	let note = $state<Note | null>(null);
	const attempt = new Attempt();
	let done = $state<string | null>(null);

	const at = $derived({ params: { path: { id } } });

	async function look(): Promise<void> {
		const rigs = await told(api.GET('/api/rigs'));
		note = rigs.find((rig) => rig.id === id) ?? null;
	}
	$effect(() => void attempt.run(look));

	async function act(deed: () => Promise<void>): Promise<void> {
		done = null;
		await attempt.run(deed);
		await look().catch(() => {});
	}

	function takeBack(rig: Note): Promise<void> {
		return act(async () => {
			await told(api.POST('/api/rigs/{id}/undo', { ...at, body: { seq: rig.seq } }));
			onOpened();
		});
	}

	function archive(rig: Note): Promise<void> {
		return act(async () => {
			await told(api.POST('/api/rigs/{id}/archive', { ...at, body: { away: !rig.archived } }));
			done = rig.archived ? 'It is back among the rigs.' : 'It is put away; nothing is lost.';
		});
	}
</script>

<main>
	<h1>{note ? `${note.name} cannot be opened` : 'This rig cannot be opened'}</h1>
	<p role="alert">
		{attempt.fault ?? (note?.unreadable ? `It cannot be read here, ${note.unreadable}` : reason)}
	</p>
	{#if note}
		{@const rig = note}
		<p class="quiet">
			Nothing of it is lost. Taking back its latest entry often opens it again; its file holds all
			of it, for another version or for mending by hand.
		</p>
		<p class="deeds">
			{#if rig.undoable}
				<button class="act" onclick={() => takeBack(rig)}>Take back the latest entry</button>
			{/if}
			<a class="act plain" href="/api/rigs/{id}/file" download>Its file</a>
			<button class="act plain" onclick={() => archive(rig)}
				>{rig.archived ? 'Bring back' : 'Put away'}</button
			>
		</p>
		{#if done}<p role="status">{done}</p>{/if}
	{/if}
	<p class="deeds">
		<a class="link" href="/">All rigs</a>
		{#if !note}<a class="link" href="/range">Rigs at the range</a>{/if}
	</p>
</main>

<style>
	main {
		max-width: 36rem;
		margin: 16vh auto;
		padding: 0 1.5rem;
	}
	h1 {
		font-size: 2.05rem;
		line-height: 1.15;
		text-wrap: balance;
	}
	p {
		margin: 0.8rem 0;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
	}
	a.act {
		text-decoration: none;
	}
</style>
