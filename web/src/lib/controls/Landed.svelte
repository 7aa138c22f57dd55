<script lang="ts">
	import type { ButtPhoto, Shaft } from '$lib/bench/buttPhoto.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import ButtPlate from '$lib/plates/ButtPlate.svelte';
	import FilePick from './FilePick.svelte';
	import Pointed from './Pointed.svelte';

	/** Where arrows landed: tapped on a butt drawn to scale, or marked on a photo of it. */
	interface Place {
		right_cm: number;
		up_cm: number;
		shaft: Shaft;
	}
	interface Props {
		photo: ButtPhoto;
		tapped: Place[];
		/** What the next arrow is. */
		shaft?: Shaft;
		label: string;
		note: string;
		/** Half of the butt that is drawn at least [cm]. */
		least: number;
	}
	let { photo, tapped = $bindable(), shaft = 'fletched', label, note, least }: Props = $props();
	let takes = 0;
	const places = $derived(photo.src ? photo.places : tapped);
	const half = $derived(
		Math.max(
			least,
			...places.flatMap((p) => [Math.abs(p.right_cm), Math.abs(p.up_cm)].map((v) => v * 1.15))
		)
	);
	const MOST = 36;
	function put(right_cm: number, up_cm: number): void {
		const at = (cm: number) => Math.round(cm * 2) / 2;
		tapped = [...tapped, { right_cm: at(right_cm), up_cm: at(up_cm), shaft }].slice(-MOST);
	}
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
		{label}
		places={places.map((p, i) => ({ ...p, number: i + 1, bare: p.shaft === 'bare' }))}
		{half}
		ontap={put}
		{note}
	/>
	<div class="from">
		<FilePick
			text="From a photo"
			label="Photo of the butt"
			accept="image/jpeg,image/png"
			onfile={(file) => void photo.take(file)}
		/>
		<button type="button" class="link" onclick={() => void photo.practise(takes++)}
			>Simulated photo</button
		>
		{#if photo.busy}<span role="status">The photo is made plain …</span>{/if}
		{#if photo.problem}<span class="wrong" role="alert">{photo.problem}</span>{/if}
	</div>
{/if}

<style>
	.from {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 1.4rem;
		align-items: center;
	}
	.from .link {
		padding-block: 3px;
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
