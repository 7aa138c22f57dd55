<script lang="ts">
	import { onDestroy } from 'svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { ButtPhoto, type Shaft } from '$lib/bench/buttPhoto.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import ButtPlate from '$lib/plates/ButtPlate.svelte';
	import GroupStepsPlate from '$lib/plates/GroupStepsPlate.svelte';
	import Pointed from './Pointed.svelte';
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
	let right = $state('');
	let up = $state('');
	let problem = $state('');
	let picker = $state<HTMLInputElement>();
	let takes = 0;
	const places = $derived(photo.src ? photo.places : tapped);
	const HALF_CM = 40;
	const half = $derived(
		Math.max(
			HALF_CM,
			...places.flatMap((p) => [Math.abs(p.right_cm), Math.abs(p.up_cm)].map((v) => v * 1.15))
		)
	);
	const typing = $derived(!photo.src && Boolean(right.trim() || up.trim()));
	const form = new TrialForm('group', bench, () => {
		tapped = [];
		photo.leave();
	});
	onDestroy(() => photo.leave());

	function put(right_cm: number, up_cm: number): void {
		const at = (cm: number) => Math.round(cm * 2) / 2;
		tapped = [...tapped, { right_cm: at(right_cm), up_cm: at(up_cm), shaft }].slice(-36);
	}
	async function typed(): Promise<void> {
		problem = '';
		try {
			put(
				right.trim() ? await reference.read(right, 'spot') : 0,
				up.trim() ? await reference.read(up, 'spot') : 0
			);
			right = up = '';
		} catch (error) {
			problem = (error as Error).message;
		}
	}
	const log = async (): Promise<void> => {
		if (typing) return typed();
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
	const edit = form.edit((was) => {
		photo.leave();
		distance = reference.text(was.distance_m, 'distance', false);
		tapped = was.impacts.map((i) => ({ ...i, shaft: i.shaft ?? 'fletched' }));
	});
	const back = () => (photo.src ? photo.back() : (tapped = tapped.slice(0, -1)));
</script>

{#if photo.src}
	{@const corners = photo.corners.map((c, i) => ({
		...c,
		text: `${i + 1}`,
		tone: 'moss' as const
	}))}
	{@const zero = photo.zero ? [{ ...photo.zero, text: 'mark', tone: 'ink' as const }] : []}
	<p aria-live="polite">
		Mark <strong>{photo.next}</strong>.
		{#if photo.simulated}<span class="quiet"
				>A simulated photo, to practise on: what you log of it counts for nothing.</span
			>{/if}
	</p>
	<Pointed
		label="The photo of the butt"
		width={photo.width}
		height={photo.height}
		marks={[
			...corners,
			...zero,
			...photo.arrows.map((a, i) => ({
				x: a.x,
				y: a.y,
				text: `${i + 1}`,
				tone: a.shaft === 'bare' ? ('heather' as const) : ('ochre' as const)
			}))
		]}
		onpick={(x, y) => photo.mark(x, y, shaft)}
	>
		{#snippet picture()}<img src={photo.src} alt="The butt as it was photographed" />{/snippet}
		{#snippet over(unit)}
			{#if photo.corners.length === 4}<polygon
					points={photo.corners.map((c) => `${c.x},${c.y}`).join(' ')}
					fill="none"
					stroke="var(--moss)"
					stroke-width={2 * unit}
				/>{/if}
		{/snippet}
	</Pointed>
	<p class="line readings">
		<label
			>The butt is <input
				class="line-input num"
				bind:value={photo.wide}
				oninput={() => photo.read()}
				aria-label="Width of the butt"
			/></label
		>
		<label
			>by <input
				class="line-input num"
				bind:value={photo.high}
				oninput={() => photo.read()}
				aria-label="Height of the butt"
			/>
			{reference.unit('spot').label}</label
		>
		<button type="button" class="link" onclick={() => photo.leave()}>Without the photo</button>
	</p>
	{#if photo.problem}<p class="wrong" role="alert">{photo.problem}</p>{/if}
{:else}
	<ButtPlate
		label="This group: tap where each arrow landed; × fletched, ○ bare"
		places={places.map((p, i) => ({ ...p, number: i + 1, bare: p.shaft === 'bare' }))}
		{half}
		ontap={put}
		note="tap where the next {shaft} one landed"
	/>
	<div class="from">
		<button type="button" class="link" onclick={() => picker?.click()}>From a photo</button>
		<button type="button" class="link" onclick={() => void photo.practise(takes++)}
			>Simulated photo</button
		>
		{#if photo.busy}<span role="status">The photo is made plain …</span>{/if}
		{#if photo.problem}<span class="wrong" role="alert">{photo.problem}</span>{/if}
		<input
			bind:this={picker}
			type="file"
			accept="image/jpeg,image/png"
			aria-label="Photo of the butt"
			hidden
			onchange={(e) => {
				const file = e.currentTarget.files?.[0];
				if (file) void photo.take(file);
				e.currentTarget.value = '';
			}}
		/>
	</div>
{/if}
<TrialEntry
	{form}
	notesOn="this group"
	label={typing ? 'Put it' : `Log ${places.length || ''}`}
	ready={typing || (places.length > 1 && Boolean(distance.trim()))}
	hint={problem ||
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
				bind:value={right}
				placeholder="− left"
				aria-label="How far right the next arrow landed"
				data-trial
			/></label
		>
		<label
			>up <input
				class="line-input num"
				bind:value={up}
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
	.from {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 1.4rem;
		align-items: center;
	}
	.from .link {
		padding-block: 3px;
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
