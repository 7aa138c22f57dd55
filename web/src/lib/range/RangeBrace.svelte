<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import { today } from '$lib/format/day';
	import SaidText from '$lib/format/SaidText.svelte';
	import Stepper from './Stepper.svelte';
	import type { AtRange } from './unlogged.svelte';

	/** The brace height as it is measured now: it holds, it moved, or how three arrows felt at it. */
	let { view, outbox, unlogged }: AtRange = $props();
	const answer = $derived(view.bench.stations.find((s) => s.station === 'brace')?.answer);
	const FEEL = ['harsh', '', '', '', 'smooth'];
	const set = $derived(outbox.setting('bow.brace_height_in') as number | null);
	const kept = $derived(set ?? view.bench.brace?.brace_in ?? null);
	const range = $derived(reference.catalog?.fields['bow.brace_height_in']);
	/** What is typed and no measurement: nothing is logged with what stood there before. */
	let unread = $state(false);
	const unit = $derived(reference.unit('brace'));
	const step = $derived(
		reference.toStored(1 / (unit.denominator || (unit.label === 'in' ? 16 : 1)), 'brace')
	);
	const value = $derived(unlogged.brace ?? kept ?? 0);
	const text = (inches: number) => reference.text(inches, 'brace');
	const holds = $derived(set != null && text(value) === text(set));
	const settled = $derived(
		view.states.find((s) => s.station === 'brace')?.state === 'settled' ? 'settled' : 'provisional'
	);

	function stands(): void {
		if (unread || kept === null) return;
		if (holds)
			outbox.log(`brace ${text(value)}: it holds`, {
				station: 'brace',
				standing: settled,
				why: 'measured at the range'
			});
		else
			outbox.log(`brace ${text(value)}${set === null ? '' : `, was ${text(set)}`}`, {
				station: 'brace',
				why: 'measured at the range',
				changes: { 'bow.brace_height_in': value }
			});
		unlogged.brace = null;
	}
	function felt(feel: number): void {
		outbox.log(`brace ${text(value)}: 3 arrows, feel ${feel} of 5`, {
			station: 'brace',
			trial: {
				kind: 'brace',
				brace_height_in: value,
				reference: view.bench.rig.bow.brace_reference ?? 'grip',
				arrows: 3,
				heard_by: 'ear',
				levels_db: [],
				feel,
				notes: '',
				day: today()
			}
		});
	}

	/** Enter says that the bow stands so. */
	export function key(event: KeyboardEvent): boolean {
		if (event.key === 'Enter') stands();
		else return false;
		return true;
	}
</script>

{#if kept === null}
	<p>
		No brace height can be told of this rig: set it at its <a
			class="link"
			href="/rig/{view.id}/brace">Brace</a
		>
		page first.
	</p>
{:else}
	<Stepper
		label="Brace height, to the {view.bench.rig.bow.brace_reference ?? 'grip'}"
		quantity="brace"
		{value}
		{step}
		low={range?.low ?? 0}
		high={range?.high ?? Infinity}
		bind:unread
		onvalue={(v) => (unlogged.brace = v)}
	/>
	<p class="told" aria-live="polite">
		{#if holds}as it is kept{:else if set == null}not measured yet
		{:else}{text(Math.abs(value - set))} {value > set ? 'higher' : 'lower'} than it is kept{/if}
	</p>
	<button class="act stands" disabled={unread} onclick={stands}
		>{holds ? 'It holds' : `The bow stands at ${text(value)}`}</button
	>
	<h2>Three arrows at this brace felt</h2>
	<div class="feel" role="group" aria-label="How three arrows felt, 1 harsh to 5 smooth">
		{#each FEEL as word, i (i)}
			<button class="act plain" disabled={unread} onclick={() => felt(i + 1)}
				>{i + 1} <span class="quiet">{word}</span></button
			>
		{/each}
	</div>
{/if}
{#if answer}<p class="quiet"><SaidText said={answer} /></p>{/if}
<p class="quiet">Unstrung and braced again, or twisted: measure before the next end.</p>

<style>
	.told {
		text-align: center;
		min-height: 1.5rem;
	}
	.stands {
		width: 100%;
		min-height: 60px;
		font-size: 1.15rem;
		margin: 0.4rem 0 1.4rem;
	}
	p {
		margin: 0.5rem 0;
	}
	h2 {
		font-size: 1.1rem;
		margin-bottom: 0.5rem;
	}
	.feel {
		display: grid;
		grid-template-columns: repeat(5, 1fr);
		gap: 0.5rem;
		margin-bottom: 1rem;
	}
	.feel .act {
		min-height: 60px;
		font-size: 1.4rem;
		padding: 0;
		display: flex;
		flex-direction: column;
		align-items: center;
		justify-content: center;
		line-height: 1.1;
	}
	.feel .quiet {
		font-size: 0.75rem;
		font-weight: 400;
	}
</style>
