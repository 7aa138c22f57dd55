<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { passing } from '$lib/bench/passing.svelte';
	import FlightReads from '$lib/controls/FlightReads.svelte';
	import SlowMotion from '$lib/controls/SlowMotion.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import Station from '$lib/frame/Station.svelte';
	import KickPlate from '$lib/plates/KickPlate.svelte';
	import MatchPlate from '$lib/plates/MatchPlate.svelte';
	import PassingPlate from '$lib/plates/PassingPlate.svelte';

	const bench = useBench();
	const shot = passing(bench);
	const told = $derived(shot.told);
	let frame = $state(36);
	let others = $state(true);
	const shown = $derived(told ? Math.min(frame, told.time_ms.length - 1) : 0);
</script>

<Station
	id="flight"
	first="Passing"
	leaves={[
		{ id: 'reads', title: 'Reads', body: reads, trial: true },
		{ id: 'match', title: 'Which spine', body: match },
		{ id: 'map', title: 'Length, point', body: map },
		{ id: 'moves', title: 'What moves it', body: moves },
		{ id: 'walk-back', title: 'Walk-back', body: walkBack },
		{ id: 'groups', title: 'Groups', body: groups, trial: true }
	]}
>
	{#snippet plate()}
		{#if told}<PassingPlate {told} frame={shown} {others} />{:else}{@render waiting()}{/if}
	{/snippet}
	{#snippet controls()}
		{#if told}
			<SlowMotion {told} bind:frame bind:others />
			{#if told.outside.length}
				<p class="quiet wide">
					Shapes only: no number is told here, for the model was tuned to other bows.
				</p>
			{/if}
		{/if}
	{/snippet}
</Station>

{#snippet waiting()}
	{#if shot.problem}<p role="alert">{shot.problem}</p>{:else}<p class="quiet" aria-busy="true">
			One moment …
		</p>{/if}
{/snippet}
{#snippet reads()}<FlightReads />{/snippet}
{#snippet walkBack()}<Lazy of={() => import('$lib/controls/WalkBack.svelte')} />{/snippet}
{#snippet groups()}<Lazy of={() => import('$lib/controls/Groups.svelte')} />{/snippet}
{#snippet match()}
	{#if !told}{@render waiting()}
	{:else if told.curve}
		<MatchPlate {told} />
		<h2>How the nock leans at the butt</h2>
		<KickPlate {told} />
		<p class="quiet">
			As the model sees it. What leaves clean may still lean a little, for where the arrow goes
			weighs most. Beyond eight metres a shaft swings back, and its lean says nothing any more.
		</p>
	{:else}
		<p>No match is told for this bow, and no window: only the shape of the shot is drawn.</p>
		{@render why()}
	{/if}
{/snippet}
{#snippet why()}
	<ul>
		{#each told?.outside ?? [] as reason, i (i)}<li><SaidText said={reason} /></li>{/each}
	</ul>
{/snippet}
{#snippet map()}
	{#if !told}{@render waiting()}
	{:else if told.outside.length}
		<p>No map is drawn where the model says nothing of the match.</p>
		{@render why()}
	{:else}<Lazy of={() => import('$lib/controls/SpineMap.svelte')} />{/if}
{/snippet}
{#snippet moves()}<Lazy of={() => import('$lib/controls/WhatMoves.svelte')} />{/snippet}
