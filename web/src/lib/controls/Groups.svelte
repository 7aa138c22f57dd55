<script lang="ts">
	import { onDestroy } from 'svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { ButtPhoto, type Shaft } from '$lib/bench/buttPhoto.svelte';
	import { TypedPlace } from '$lib/bench/typedPlace.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import GroupStepsPlate from '$lib/plates/GroupStepsPlate.svelte';
	import Landed from './Landed.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** Groups on the butt, tapped, typed or off a photo: read for the shaft, compared step by step. */
	interface Place {
		right_cm: number;
		up_cm: number;
		shaft: Shaft;
	}
	const bench = useBench();
	const groups = $derived(bench().bench.groups ?? null);
	const photo = new ButtPhoto();
	let distance = $state('');
	let shaft = $state<Shaft>('fletched');
	let tapped = $state<Place[]>([]);
	const places = $derived(photo.src ? photo.places : tapped);
	const typed = new TypedPlace(put);
	const typing = $derived(!photo.src && typed.any);
	const form = new TrialForm('group', bench, () => {
		tapped = [];
		photo.leave();
	});
	onDestroy(() => photo.leave());

	function put(right_cm: number, up_cm: number): void {
		const at = (cm: number) => Math.round(cm * 2) / 2;
		tapped = [...tapped, { right_cm: at(right_cm), up_cm: at(up_cm), shaft }].slice(-36);
	}
	const log = async (): Promise<void> => {
		if (typing) return typed.take();
		await form.log(
			'flight',
			async () => ({
				distance_m: await reference.read(distance, 'distance'),
				impacts: $state.snapshot(places),
				by: photo.src ? (photo.simulated ? 'simulated' : 'photo') : (form.was?.by ?? 'tapped')
			}),
			$state.snapshot(bench().changes) as Record<string, unknown>
		);
	};
	form.keeps(
		'group',
		() => ({ distance, shaft, tapped, right: typed.right, up: typed.up }),
		(was) => ({ distance, shaft, tapped, right: typed.right, up: typed.up } = was)
	);
	const edit = form.edit((was) => {
		photo.leave();
		distance = reference.text(was.distance_m, 'distance', false);
		tapped = was.impacts.map((i) => ({ ...i, shaft: i.shaft ?? 'fletched' }));
	});
	const back = () => (photo.src ? photo.back() : (tapped = tapped.slice(0, -1)));
</script>

<Landed
	{photo}
	bind:tapped
	{shaft}
	label="This group: tap where each arrow landed; × fletched, ○ bare"
	note="tap where the next {shaft} one landed"
	least={40}
/>
<TrialEntry
	{form}
	notesOn="this group"
	label={typing ? 'Put it' : `Log ${places.length || ''}`}
	ready={typing || (places.length > 1 && Boolean(distance.trim()))}
	hint={typed.problem ||
		'Three fletched and three bare from about 15 m, or six fletched from about 25 m: places are told from the mark you aimed at. A photo is only looked at; just where the arrows landed is kept.'}
	onlog={log}
>
	{#snippet above()}
		<div class="line">
			<label
				>next is
				<select class="line-input" bind:value={shaft} aria-label="The next arrow is">
					<option value="fletched">fletched</option>
					<option value="bare">bare</option>
				</select></label
			>
			<label
				>from <input
					class="line-input num"
					bind:value={distance}
					aria-label="Distance of this group"
				/>
				{reference.unit('distance').label}</label
			>
			<button
				type="button"
				class="link"
				disabled={!(photo.src ? photo.corners.length : tapped.length)}
				onclick={back}>Take the last back</button
			>
		</div>
	{/snippet}
	{#if !photo.src}
		<label
			>right
			<input
				class="line-input num"
				bind:value={typed.right}
				placeholder="− left"
				aria-label="How far right the next arrow landed"
				data-trial
			/></label
		>
		<label
			>up <input
				class="line-input num"
				bind:value={typed.up}
				placeholder="− below"
				aria-label="How far up the next arrow landed"
			/>
			{reference.unit('spot').label}</label
		>
	{/if}
</TrialEntry>
{#if groups}
	<h2>Steps of {groups.title}</h2>
	<GroupStepsPlate {groups} />
{/if}
<TrialList
	kinds={['group']}
	empty="No group was shot yet. To compare settings shoot a group of six at each of three or four small steps of one setting, from far."
	edits="group"
	onedit={edit}
/>

<style>
	h2 {
		margin-top: 1rem;
	}
	.line select {
		width: 7rem;
	}
	.line .num {
		width: 4.7rem;
	}
	label {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		align-items: baseline;
	}
</style>
