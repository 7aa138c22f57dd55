<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import { exactly } from '$lib/format/measure';
	import SaidText from '$lib/format/SaidText.svelte';
	import { countedBy, lineAt, settingText, spreadText, type Line, type Taken } from './setting';

	/** The card: what is done at each distance, or at each target of a course. */
	interface Props {
		view: Taken;
		/** The distance that is looked at [m]. */
		distance: number;
		onpick: (distance_m: number) => void;
		/** As of when it is, where the server is out of reach. */
		asOf: string | null;
	}
	let { view, distance, onpick, asOf }: Props = $props();
	let every = $state(false);
	/** Which course; -1 is the card of distances. */
	let course = $state(-1);
	const by = $derived(countedBy(view));
	const lines = $derived(view.lines.filter((line) => every || line.own));
	const courses = $derived(view.bench.rig.courses ?? []);
	const targets = $derived(view.round_cards[course] ?? null);
	const here = $derived(lineAt(view, distance));
	const step = $derived(reference.unit('distance').label === 'yd' ? 'yard' : 'metre');
	const far = (m: number, unit = false) => exactly(reference.text(m, 'distance', unit));
	const answer = $derived(view.bench.stations.find((s) => s.station === 'crawls')?.answer);

	function walk(event: KeyboardEvent): void {
		const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (!way || !lines.length) return;
		event.preventDefault();
		const at = lines.findIndex((line) => line.distance_m >= distance - 0.01);
		const next = lines[Math.min(Math.max(at + way, 0), lines.length - 1)] as Line;
		onpick(next.distance_m);
		const list = event.currentTarget as HTMLElement;
		list.querySelectorAll<HTMLElement>('button')[lines.indexOf(next)]?.focus();
	}
</script>

{#if here && !targets}
	<p class="large" aria-live="polite">
		<span class="at">{far(here.distance_m, true)}</span>
		{#if by === null}<span class="quiet">tip</span>{/if}
		<strong>{settingText(here, by)}</strong>
		<span class="quiet">{spreadText(here, by, true)}</span>
	</p>
{/if}
<div class="choose-card">
	{#if courses.length}
		<select class="choose" bind:value={course} aria-label="Which card">
			<option value={-1}>The card of distances</option>
			{#each courses as one, i (i)}<option value={i}>{one.name}</option>{/each}
		</select>
	{/if}
	{#if !targets && view.lines.some((line) => !line.own)}
		<button class="link" aria-pressed={every} onclick={() => (every = !every)}
			>{every ? 'Your distances only' : `Every ${step}`}</button
		>
	{/if}
</div>
{#if targets}
	<ol>
		{#each targets as line (line.number)}
			<li>
				<span class="far num">{line.number}</span>
				<span class="who"
					>{line.target.name || 'target'}<span class="quiet"
						>{far(line.target.distance_m, true)}{line.target.slope_deg
							? `, ${reference.text(line.target.slope_deg, 'angle')}`
							: ''}</span
					></span
				>
				<strong
					>{line.why
						? line.why
						: settingText(
								{
									set_to: by === null ? (line.gap_cm ?? null) : (line.crawl_mm ?? null),
									hold_over_cm: line.hold_over_cm ?? null,
									counted: line.counted ?? null
								},
								by
							)}</strong
				>
			</li>
		{/each}
	</ol>
{:else if lines.length}
	<ol onkeydown={walk} role="presentation">
		{#each lines as line (line.distance_m)}
			{@const chosen = Math.abs(line.distance_m - distance) < 0.01}
			<li class:chosen>
				<button aria-pressed={chosen} onclick={() => onpick(line.distance_m)}>
					<span class="far num">{far(line.distance_m)}</span>
					<strong>{settingText(line, by)}</strong>
					<span class="quiet">{spreadText(line, by)}</span>
				</button>
			</li>
		{/each}
	</ol>
{:else}
	<p class="quiet">
		The models give no card for this rig as it is kept; its Aim page says why. What you log here is
		kept all the same.
	</p>
{/if}
{#if asOf}<p class="quiet answer">As it was told on {asOf}.</p>{/if}
{#if answer && lines.length}<p class="quiet answer"><SaidText said={answer} /></p>{/if}

<style>
	.large {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0 0.8rem;
		margin: 0 0 0.3rem;
	}
	.large .at {
		font-size: 1.5rem;
	}
	.large strong {
		font-size: 2.5rem;
		line-height: 1.1;
		color: var(--heather);
	}
	.choose-card {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 1rem;
		min-height: 44px;
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
		border-top: 1px solid var(--ink);
	}
	li {
		border-bottom: 1px solid var(--line);
	}
	li button,
	li:not(:has(button)) {
		width: 100%;
		display: grid;
		grid-template-columns: 3.2rem 1fr auto;
		gap: 0 0.8rem;
		align-items: center;
		min-height: 48px;
		padding: 0 0.4rem 0 0;
		text-align: left;
	}
	li button {
		background: none;
		border: 0;
		color: var(--ink);
		cursor: pointer;
	}
	.chosen {
		background: var(--heather-wash);
	}
	.far {
		font-size: 1.25rem;
		text-align: right;
	}
	li strong {
		font-size: 1.25rem;
	}
	.answer {
		margin: 0.8rem 0;
		font-size: 0.9rem;
	}
	.who .quiet {
		display: block;
		font-size: 0.85rem;
	}
</style>
