<script lang="ts">
	import { tick } from 'svelte';
	import type { ApiProblem } from '$lib/api/client';
	import type { Recorded } from '$lib/bench/recorded.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { refocus } from '$lib/frame/focus';
	import SoundPlate from '$lib/plates/SoundPlate.svelte';

	/** A recording on its outline: shots taken out and added, and one's own marked by ear. */
	let { recorded, onproblem }: { recorded: Recorded; onproblem: (reason: string) => void } =
		$props();
	const ask = $derived(recorded.sound?.ask ?? null);
	let wanted = $state(false);
	let chosen = $state<number | null>(null);
	let at = $state('');
	let box = $state<HTMLElement>();
	const marking = $derived(ask !== null || wanted);

	async function tried(work: () => Promise<void>): Promise<void> {
		try {
			await work();
		} catch (error) {
			onproblem((error as ApiProblem).message);
		}
	}

	function choose(seconds: number): void {
		chosen = seconds;
		recorded.play(seconds);
	}

	async function mark(): Promise<void> {
		const seconds = chosen;
		if (seconds === null) return;
		chosen = null;
		wanted = false;
		await tried(() => recorded.mark(seconds));
		// The button pressed has gone: on to the shots that were found.
		await tick();
		refocus(box?.querySelector<HTMLElement>('[role="button"][tabindex="0"]') ?? undefined);
	}
</script>

{#if recorded.sound}
	<div bind:this={box}>
		<SoundPlate
			sound={recorded.sound}
			out={recorded.out}
			{marking}
			{chosen}
			onpress={(seconds) => (marking ? choose(seconds) : recorded.press(seconds))}
			onadd={(seconds) => void tried(() => recorded.add(seconds))}
		/>
	</div>
	{#if marking}
		<p class="asked" aria-live="polite">
			<strong>{ask ?? 'Mark one shot of your own.'}</strong>
			{#if chosen === null}
				Press one of your own shots on the outline (the arrow keys go from sound to sound): it is
				played, and the others are told by their likeness to it.
			{:else}
				The sound at {reference.text(chosen, 'seconds')}:
				<button type="button" class="link" onclick={() => recorded.play(chosen!)}>Hear again</button
				>
				<button type="button" class="act" disabled={recorded.busy} onclick={mark}
					>It is my shot</button
				>
			{/if}
			{#if ask === null}<button type="button" class="link" onclick={() => (wanted = false)}
					>Leave it</button
				>{/if}
		</p>
	{:else}
		<div class="line">
			<span class="quiet">A shot that was missed, at</span>
			<input class="line-input num short" bind:value={at} aria-label="Time of a missed shot" />
			<span class="quiet">s</span>
			<button
				type="button"
				class="link"
				disabled={!at.trim() || recorded.busy}
				onclick={() =>
					tried(async () => {
						await recorded.add(await reference.read(at, 'seconds'));
						at = '';
					})}>Add it</button
			>
			<button type="button" class="link" onclick={() => (wanted = true)}
				>Others’ shots among them?</button
			>
		</div>
		{#if recorded.spoilt}
			<p class="quiet">
				{recorded.spoilt}
				{recorded.spoilt === 1 ? 'shot is' : 'shots are'} found but not used: clipped, cut off at an end,
				or wind lies under it.
			</p>
		{/if}
	{/if}
{/if}

<style>
	.asked {
		margin: 0.4rem 0;
	}
	.line {
		margin-top: 0.4rem;
	}
	.short {
		width: 3.4rem;
	}
</style>
