<script lang="ts">
	import { onDestroy } from 'svelte';
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { Clip } from '$lib/bench/clip.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import Pointed, { type PointMark } from './Pointed.svelte';
	import TrialEntry from './TrialEntry.svelte';
	import TrialList from './TrialList.svelte';

	/** A slow-motion clip: stepped, nock and point marked, the computed shape laid over it. */
	type Tail = TrialOf<'clip'>['tail'];
	const TAILS: { id: Tail; words: string }[] = [
		{ id: 'clear', words: 'passes clear' },
		{ id: 'bounce', words: 'strikes the side plate' },
		{ id: 'unseen', words: 'cannot be seen' }
	];
	const bench = useBench();
	let rate = $state('240');
	let tail = $state<Tail>('unseen');
	let laid = $state(true);
	let picker = $state<HTMLInputElement>();
	let video = $state<HTMLVideoElement>();
	let takes = 0;
	const clip = new Clip(bench, () => reference.read(rate, 'frame_rate'));
	const form = new TrialForm('clip', bench, () => {
		clip.leave();
		tail = 'unseen';
	});
	onDestroy(() => clip.leave());
	$effect(() => {
		if (video && clip.seconds) video.currentTime = (clip.frame + 0.5) / clip.plays;
	});

	async function practise(): Promise<void> {
		await clip.practise(takes++);
		if (clip.film) rate = reference.text(clip.film.frames_a_second, 'frame_rate', false);
	}
	const log = () =>
		form.log(
			'flight',
			() => clip.trial(tail, form.was?.by),
			$state.snapshot(bench().changes) as Record<string, unknown>
		);
	const edit = form.edit((was) => {
		clip.leave();
		rate = reference.text(was.frames_a_second, 'frame_rate', false);
		tail = was.tail ?? 'unseen';
		clip.letGo = was.let_go ?? null;
		clip.marks = Object.fromEntries(
			(was.marks ?? []).map((m) => [
				m.frame,
				{
					nock: { x: m.nock_px[0]!, y: m.nock_px[1]! },
					point: { x: m.point_px[0]!, y: m.point_px[1]! }
				}
			])
		);
	});
	function key(event: KeyboardEvent): void {
		if (event.target instanceof HTMLInputElement) return;
		if (event.key === ',' || event.key === '<') clip.to(clip.frame - 1);
		else if (event.key === '.' || event.key === '>') clip.to(clip.frame + 1);
		else if (event.key === 'Backspace') clip.back();
		else return;
		event.preventDefault();
	}
	const marks = $derived<PointMark[]>([
		...(clip.here.nock ? [{ ...clip.here.nock, text: 'nock', tone: 'heather' as const }] : []),
		...(clip.here.point ? [{ ...clip.here.point, text: 'point', tone: 'ochre' as const }] : [])
	]);
	const way = $derived(clip.told?.nock_way ?? null);
</script>

{#if clip.open}
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div onkeydown={key}>
		<p aria-live="polite">
			Frame <span class="num">{clip.frame}</span> of {clip.last}{#if clip.next}: mark <strong
					>{clip.next}</strong
				>{:else}: both ends are marked{/if}.
			{#if clip.simulated}<span class="quiet"
					>The simulated camera, to practise on: what you log of it counts for nothing.</span
				>{/if}
		</p>
		<Pointed
			label="The clip, frame {clip.frame}"
			width={clip.width}
			height={clip.height}
			{marks}
			onpick={(x, y) => clip.mark(x, y)}
		>
			{#snippet picture()}
				{#if clip.film}<img src={clip.film.frames[clip.frame]} alt="The shot from above" />
				{:else}<video
						bind:this={video}
						src={clip.src}
						muted
						playsinline
						preload="auto"
						onloadedmetadata={(e) => clip.opened(e.currentTarget)}
						ondurationchange={(e) => clip.lasts(e.currentTarget)}
						onerror={() => clip.failed()}
					></video>{/if}
			{/snippet}
			{#snippet over(unit)}
				{#if laid && clip.shape}<polyline
						points={clip.shape.map((p) => p.join(',')).join(' ')}
						fill="none"
						stroke="var(--heather)"
						stroke-width={1.6 * unit}
						stroke-dasharray="{6 * unit} {4 * unit}"
					/>{/if}
			{/snippet}
		</Pointed>
		<div class="steps" role="group" aria-label="Frames">
			<button
				type="button"
				class="act plain"
				aria-label="One frame back"
				onclick={() => clip.to(clip.frame - 1)}>‹</button
			>
			<input
				type="range"
				min="0"
				max={clip.last}
				step="1"
				value={clip.frame}
				oninput={(e) => clip.to(e.currentTarget.valueAsNumber)}
				aria-label="Frame"
			/>
			<button
				type="button"
				class="act plain"
				aria-label="One frame on"
				onclick={() => clip.to(clip.frame + 1)}>›</button
			>
			<button
				type="button"
				class="act plain"
				aria-pressed={clip.letGo === clip.frame}
				onclick={() => clip.release()}
				>{clip.letGo === clip.frame ? 'It lets go here ✓' : 'The string lets go here'}</button
			>
			<button type="button" class="link" onclick={() => clip.back()}>Take back</button>
			<label class="pick"><input type="checkbox" bind:checked={laid} /> computed shape</label>
			<button type="button" class="link" onclick={() => clip.leave()}>Another clip</button>
		</div>
		<p class="quiet">
			First a frame at full draw, the arrow straight; then every frame that shows both ends. Keys: ,
			and . step, Backspace takes back.
			{clip.whole.length} marked{clip.letGo === null
				? '; say on which frame the string lets go.'
				: `, the string lets go on frame ${clip.letGo}.`}
		</p>
	</div>
{:else}
	<p class="quiet">
		A telephone on a stand above the arrow, looking straight down, filming as slowly as it can: 480
		frames a second or more show the bend. The clip stays on your device; only the marks are kept.
	</p>
	<p class="line">
		<button type="button" class="act plain" onclick={() => picker?.click()}>Open a clip</button>
		<button type="button" class="link" disabled={clip.busy} onclick={() => void practise()}
			>Simulated camera</button
		>
		{#if clip.busy}<span role="status">It films …</span>{/if}
		<input
			bind:this={picker}
			type="file"
			accept="video/*"
			aria-label="Slow-motion clip"
			hidden
			onchange={(e) => {
				const file = e.currentTarget.files?.[0];
				if (file) clip.take(file);
				e.currentTarget.value = '';
			}}
		/>
	</p>
{/if}
{#if clip.problem}<p class="wrong" role="alert">{clip.problem}</p>{/if}
{#if clip.told}
	<dl class="told">
		<dt>The shaft bends at</dt>
		<dd>
			{#if clip.told.frequency}{reference.text(clip.told.frequency.value, 'frequency')}
				<span class="quiet">± {reference.text(clip.told.frequency.plus_minus, 'frequency')}</span>
			{:else if clip.told.why}<SaidText said={clip.told.why} />{/if}
			<span class="quiet"
				>; spine {reference.text(clip.told.acts, 'spine', false)} would at {reference.text(
					clip.told.computed_hz,
					'frequency'
				)}</span
			>
		</dd>
		{#if clip.told.spine}<dt>So it is like spine</dt>
			<dd><Measure value={{ ...clip.told.spine, quantity: 'spine' }} /></dd>{/if}
		{#if clip.film && clip.told.spine}<dt>The camera’s answer</dt>
			<dd>
				<details>
					<summary class="link">Show it</summary>
					spine {reference.text(clip.film.spine, 'spine', false)}, let go on frame {clip.film
						.let_go}
				</details>
			</dd>{/if}
		{#if way}<dt>The nock went out</dt>
			<dd>
				<Measure value={{ ...way.out_mm, quantity: 'small' }} />
				<span class="quiet"
					>; by the model {reference.text(Math.max(...way.computed_mm), 'small')}</span
				>
			</dd>{/if}
	</dl>
{/if}
<TrialEntry
	{form}
	notesOn="this look"
	label="Log this look"
	ready={tail !== 'unseen' || (clip.letGo !== null && clip.whole.length > 1)}
	hint="What the tail did counts most; the marks tell how stiff the shaft truly is."
	onlog={log}
>
	{#snippet above()}
		<div class="line">
			<label
				>filmed at <input class="line-input num" bind:value={rate} aria-label="Filmed at" />
				{reference.unit('frame_rate').label}</label
			>
			{#if clip.src}<label
					>the file plays <input
						class="line-input num"
						type="number"
						min="1"
						max="1000"
						bind:value={clip.plays}
						aria-label="Frames a second of the file"
					/></label
				>{/if}
		</div>
	{/snippet}
	<label
		>The tail
		<select class="line-input" bind:value={tail} data-trial aria-label="What the tail did">
			{#each TAILS as one (one.id)}<option value={one.id}>{one.words}</option>{/each}
		</select></label
	>
</TrialEntry>
<TrialList
	kinds={['clip']}
	empty="No slow-motion look was logged yet."
	edits="clip"
	onedit={edit}
/>

<style>
	.steps {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 0.8rem;
		align-items: center;
		margin: 0.4rem 0;
	}
	.steps input[type='range'] {
		flex: 1 1 8rem;
		accent-color: var(--heather);
	}
	.steps .act {
		min-width: 44px;
		min-height: 44px;
	}
	.told {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.2rem 1rem;
		margin: 0.6rem 0;
	}
	.told dt {
		color: var(--quiet);
	}
	.told dd {
		margin: 0;
	}
	.line .num {
		width: 4.7rem;
	}
	select {
		width: 13rem;
	}
</style>
