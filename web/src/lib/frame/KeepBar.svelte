<script lang="ts">
	import { notify } from '$lib/bench/notice.svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';

	let { station }: { station: string | null } = $props();

	const bench = useBench();
	let why = $state('');
	let settled = $state(false);
	$effect(() => {
		if (bench().proposed) why = bench().proposed!.why;
	});
	useDraft(
		'changes',
		() => ({ changes: bench().changes, trial: bench().trial, why, settled }),
		(was) => {
			bench().revert();
			bench().trial = was.trial;
			bench().setAll(was.changes);
			({ why, settled } = was);
		}
	);
	const n = $derived(Object.keys(bench().changes).length);
	/** Stations that keeping this would make due. */
	const made = $derived(
		bench()
			.states.filter((s) => s.state === 'due')
			.filter((s) => bench().kept.states.find((k) => k.station === s.station)?.state !== 'due')
			.filter((s) => s.station !== station)
			.map((s) => reference.catalog?.stations.find((c) => c.id === s.station)?.title)
	);
	/** Other rigs with the same parts, and what it makes due there. */
	const reached = $derived(
		bench().reaches.map((r) => (r.due.length ? `${r.rig} (${r.due.join(', ')} due)` : r.rig))
	);
	const stands = $derived(station ? bench().state(station)?.state : undefined);

	/** What stands under a stop is not called settled. */
	const stopped = $derived(
		bench().bench.stations.some(
			(s) => s.station === station && s.findings.some((f) => f.level === 'stop')
		)
	);
	const unread = $derived(Object.keys(bench().unread).length > 0);
	const blocked = $derived(Object.keys(bench().refused).length > 0 || unread);

	// A press while one is at work follows it: of the same it finds nothing left to keep.
	let last: Promise<unknown> = Promise.resolve();
	export function keep(): void {
		last = last.catch(() => null).then(() => new One().run(kept));
	}

	async function kept(): Promise<void> {
		// What was typed last may still be on its way to being read, and what was pressed before done.
		await reference.settled();
		await bench().atRest();
		if (blocked) return;
		const standing = settled ? 'settled' : 'provisional';
		if (bench().dirty) {
			const told = n === 0 ? 'Kept a trial.' : n === 1 ? 'Kept one change.' : `Kept ${n} changes.`;
			if (await bench().keep(station, why, standing)) {
				notify(`${told} Ctrl+Z takes it back.`);
				why = '';
				settled = false;
			}
		}
	}
</script>

{#if bench().dirty}
	<div class="bar">
		<p aria-live="polite">
			<strong>{n === 0 ? 'A trial' : n === 1 ? 'One change' : `${n} changes`} not kept.</strong>
			{#if unread}Something typed here cannot be read yet: mend it first.{/if}
			{#if reached.length}Keeping {n === 1 ? 'it' : 'them'} reaches {reached.join(', ')}.{/if}
			{#if made.length}Keeping {n === 1 ? 'it' : 'them'} makes {made.join(' and ')} due.{/if}
		</p>
		<input
			class="line-input"
			bind:value={why}
			placeholder="why (may stay empty)"
			maxlength="500"
			aria-label="Reason for keeping this"
			onkeydown={(e) => e.key === 'Enter' && keep()}
		/>
		<label><input type="checkbox" bind:checked={settled} /> settled</label>
		<button class="act plain" onclick={() => bench().revert()}>Back<kbd>Esc</kbd></button>
		<button class="act" onclick={keep} disabled={bench().busy || blocked}
			>Keep this<kbd>k</kbd></button
		>
	</div>
{:else if station && stands !== 'settled' && !stopped}
	<button
		class="act plain end"
		onclick={() => bench().check(station, 'settled')}
		disabled={bench().busy}>Settled as it is</button
	>
{/if}

<style>
	.bar {
		display: flex;
		gap: 0.9rem;
		align-items: center;
		flex: 1 0 100%;
		order: -1;
		white-space: nowrap;
		padding-bottom: 0.45rem;
		border-bottom: 1px solid var(--line);
	}
	.bar p {
		white-space: normal;
		line-height: 1.25;
		max-width: 24rem;
	}
	.bar .line-input {
		flex: 1;
		min-width: 8rem;
	}
	.bar .act,
	.end {
		padding: 0.3rem 0.85rem;
	}
	.end {
		margin-left: auto;
		white-space: nowrap;
	}
	label {
		display: flex;
		gap: 0.35rem;
		align-items: center;
		font-size: 0.9rem;
	}
	input[type='checkbox'] {
		accent-color: var(--heather);
		width: 1rem;
		height: 1rem;
	}
	@media (max-width: 900px) {
		.bar {
			flex-wrap: wrap;
		}
	}
</style>
