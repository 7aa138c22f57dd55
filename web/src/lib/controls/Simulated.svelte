<script lang="ts" generics="Result">
	import { onDestroy, type Snippet } from 'svelte';
	import { ApiProblem, type Schemas } from '$lib/api/client';
	import { follow } from '$lib/api/job';

	/** A simulated instrument: begun, told reading by reading, stopped; what it read never counts. */
	interface Props {
		label: string;
		stop: string;
		/** Begins the job; `again` counts its measurements. */
		begin: (again: number) => Promise<Schemas['JobView']>;
		onlive?: (live: unknown) => void;
		onread?: (result: Result | null) => void;
		/** What it read. */
		children: Snippet<[Result]>;
	}
	let { label, stop, begin, onlive, onread, children }: Props = $props();
	let reading = $state<AbortController | null>(null);
	let share = $state(0);
	let live = $state<unknown>(null);
	let problem = $state<string | null>(null);
	let read = $state.raw<Result | null>(null);
	let times = 0;

	async function start(): Promise<void> {
		problem = null;
		share = 0;
		const mine = (reading = new AbortController());
		try {
			const job = await begin(times++);
			const onTold = (told: number | null, now: unknown) => {
				share = told ?? share;
				live = now;
				onlive?.(now);
			};
			read = await follow<Result>(job.id, { onTold, signal: mine.signal });
			onread?.(read);
		} catch (error) {
			if (!mine.signal.aborted) problem = (error as ApiProblem).message;
		} finally {
			live = null;
			reading = null;
		}
	}
	function clear(): void {
		read = null;
		onread?.(null);
	}
	onDestroy(() => reading?.abort());
</script>

<div class="simulated" aria-live="polite">
	{#if reading}
		<progress value={share} aria-label={label}></progress>
		{#if live !== null}<span class="num"
				>{Array.isArray(live) ? live.join(' · ') : String(live)}</span
			>{/if}
		<button type="button" class="link" onclick={() => reading?.abort()}>{stop}</button>
	{:else}
		<button type="button" class="link" onclick={start}>{label}</button>
	{/if}
	{#if read}
		<p>
			<strong>Simulated:</strong>
			{@render children(read)} It shows what the instrument does and never counts as measured.
			<button type="button" class="link" onclick={clear}>Clear it</button>
		</p>
	{/if}
	{#if problem}<p class="wrong">{problem}</p>{/if}
</div>

<style>
	.simulated {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 0.9rem;
		align-items: center;
		font-size: 0.93rem;
	}
	p {
		flex: 1 1 100%;
		margin: 0;
	}
	.wrong {
		color: var(--brick);
	}
</style>
