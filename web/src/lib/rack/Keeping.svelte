<script lang="ts">
	import { untrack } from 'svelte';
	import type { Schemas } from '$lib/api/client';
	import Drafts from '$lib/drafts/Drafts.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import { today } from '$lib/format/day';

	/** Lend a part, take it back, put it away, or condemn it for good. */
	interface Props {
		line: Schemas['PartLine'];
		keeping: Schemas['Keeping'];
		/** Changes of the part are waiting: first these. */
		busy: boolean;
		onkeep: (changes: Record<string, unknown>, said: string) => Promise<boolean>;
	}
	let { line, keeping, busy, onkeep }: Props = $props();
	let open = $state<'lend' | 'condemn' | null>(null);
	let to = $state('');
	let back = $state('');
	let why = $state('');
	let word = $state('');
	const draft = useDraft(
		'where it goes',
		() => ({ open, to, back, why, word }),
		(was) => ({ open, to, back, why, word } = was),
		untrack(() => line.mark)
	);
	const now = today();
	const none = { to: '', since: '', due_back: '', why: '', word: '' };

	function move(to_: string, more: Partial<typeof none>, said: string): void {
		const told = Object.entries({ ...none, ...more }).map(([k, v]) => [`keeping.${k}`, v]);
		const changes = { 'keeping.state': to_, ...Object.fromEntries(told) };
		void onkeep(changes, said).then((done) => {
			if (!done) return;
			open = null;
			to = back = why = word = '';
			draft.settle();
		});
	}
</script>

<Drafts />
{#if keeping.state === 'condemned'}
	<p class="quiet">A condemned part stays condemned: it goes on nothing again.</p>
{:else}
	<p class="deeds">
		{#if keeping.state === 'lent'}
			<button
				class="act plain"
				disabled={busy}
				onclick={() => move('in_use', {}, `${line.name} is back.`)}>It is back</button
			>
		{:else if keeping.state === 'put_away'}
			<button
				class="act plain"
				disabled={busy}
				onclick={() => move('in_use', {}, `${line.name} is out again.`)}>Take it out</button
			>
		{:else}
			<button
				class="act plain"
				disabled={busy}
				onclick={() => (open = open === 'lend' ? null : 'lend')}>Lend</button
			>
			<button
				class="act plain"
				disabled={busy}
				onclick={() => move('put_away', {}, `${line.name} is put away.`)}>Put away</button
			>
		{/if}
		<button
			class="link"
			disabled={busy}
			onclick={() => (open = open === 'condemn' ? null : 'condemn')}>Condemn</button
		>
	</p>
{/if}
{#if open === 'lend'}
	<form
		onsubmit={(e) => {
			e.preventDefault();
			move('lent', { to, since: now, due_back: back }, `${line.name} is lent to ${to}.`);
		}}
	>
		<label>To <input class="line-input" bind:value={to} maxlength="200" required /></label>
		<label>Due back <input class="line-input" type="date" min={now} bind:value={back} /></label>
		<button class="act" disabled={!to.trim()}>Lend it</button>
	</form>
{:else if open === 'condemn'}
	<form
		onsubmit={(e) => {
			e.preventDefault();
			move('condemned', { why, word }, `${line.name} is condemned.`);
		}}
	>
		<label>Why <input class="line-input" bind:value={why} maxlength="200" required /></label>
		<label
			>By whose word <input class="line-input" bind:value={word} maxlength="200" required /></label
		>
		<p class="quiet">
			This is for good: every rig with it says Stop, and it goes on nothing again.
		</p>
		<button class="act" disabled={!why.trim() || !word.trim()}>Condemn it</button>
	</form>
{/if}

<style>
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 0.9rem;
		align-items: center;
		margin: 0.5rem 0;
	}
	form {
		display: grid;
		gap: 0.5rem;
		margin: 0.4rem 0 0.8rem;
	}
	label {
		display: grid;
		grid-template-columns: 6.5rem 1fr;
		align-items: baseline;
		color: var(--quiet);
	}
</style>
