<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import { today } from '$lib/format/day';
	import { exactly } from '$lib/format/measure';
	import ButtPlate from '$lib/plates/ButtPlate.svelte';
	import { cardedOf, countedBy, crawlOf, eachOf, lineAt, QUANTITY, settingText } from './setting';
	import Stepper from './Stepper.svelte';
	import type { AtRange } from './unlogged.svelte';

	/** An end for the chart: arrows tapped on the butt, or high and low by keys. */
	let { view, outbox, unlogged }: AtRange = $props();
	const MOST = 24;
	const distance = $derived(unlogged.distance);
	const own = $derived(unlogged.own);
	const arrows = $derived(unlogged.arrows);
	const by = $derived(countedBy(view));
	const line = $derived(lineAt(view, distance));
	const imperial = $derived(reference.unit('spot').label === 'in');
	/** What one step of the keys is [cm]: two inches or five centimetres. */
	const keyed_cm = $derived(imperial ? 5.08 : 5);
	const step_m = $derived(reference.unit('distance').label === 'yd' ? 0.9144 : 1);
	/** Half of the butt that is drawn [cm]: near arrows lie close together. */
	const half = $derived(Math.min(Math.max(Math.round((2.4 * distance) / 10) * 10, 20), 60));
	/** 8 or 2 was pressed, and how far is awaited. */
	/** What is typed and no measurement: nothing is logged with what stood there before. */
	let unread = $state({ distance: false, setting: false });
	let way = $state<1 | -1 | 0>(0);

	const each = $derived(eachOf(view, by));
	const setting = $derived(own ?? cardedOf(line, by));
	const crawl_mm = $derived(crawlOf(view, line, own));
	/** Where the card has no line, the archer says how it is set before it is logged. */
	const unset = $derived(own === null && !line);
	const ready = $derived(arrows.length > 0 && !unset && !unread.distance && !unread.setting);
	/** Beyond point-on the tip is held over the spot. */
	const over_cm = $derived(own === null && line?.set_to == null ? (line?.hold_over_cm ?? 0) : 0);
	const steps = { mm: 0.5, marks: 0.25, fingers: 0.25 };

	const next = $derived(view.bench.crawls?.next ?? null);
	function take(to: NonNullable<typeof next>): void {
		unlogged.pick(to.distance_m);
		unlogged.own = lineAt(view, to.distance_m)
			? null
			: by === 'mm' || by === null
				? to.set_to
				: to.set_to / each;
	}
	const rounded = (cm: number) => Math.round(cm * 2) / 2;
	function put(right_cm: number, up_cm: number, keyed = false): void {
		way = 0;
		unlogged.arrows = [
			...arrows,
			{ right_cm: rounded(right_cm), up_cm: rounded(up_cm), keyed }
		].slice(-MOST);
	}
	const heights = $derived(
		arrows.map((a) => (a.up_cm > 0 ? '+' : '') + reference.text(a.up_cm, 'spot', false))
	);

	function log(): void {
		if (!ready) return;
		const n = arrows.length;
		const gap_cm = by === null ? setting : -over_cm;
		const set =
			line && own === null
				? settingText(line, by)
				: by === null
					? settingText({ set_to: setting, hold_over_cm: null, counted: null }, by)
					: reference.text(setting, QUANTITY[by]);
		outbox.log(
			`${n} ${unlogged.sighters ? 'sighter' : 'arrow'}${n > 1 ? 's' : ''} at ${exactly(reference.text(distance, 'distance'))}, ${set}: ${heights.join(' ')} ${reference.unit('spot').label}`,
			{
				station: 'crawls',
				trial: {
					kind: 'crawl_visit',
					distance_m: distance,
					crawl_mm,
					counted_by: by ?? 'mm',
					counted: by === null || by === 'mm' ? null : setting,
					each_mm: by === null || by === 'mm' ? null : each,
					gap_cm,
					heights_cm: arrows.map((a) => a.up_cm),
					arrows: unlogged.sighters ? 'sighters' : 'count',
					by: arrows.some((a) => a.keyed) ? 'typed' : 'tapped',
					notes: '',
					day: today()
				}
			}
		);
		unlogged.arrows = [];
		way = 0;
	}

	const back = () => (unlogged.arrows = arrows.slice(0, -1));
	/** Keys of the number block: 5 on the spot; 8 high or 2 low, then how many steps. */
	export function key(event: KeyboardEvent): boolean {
		if (way !== 0 && /^[0-9]$/.test(event.key)) put(0, way * Number(event.key) * keyed_cm, true);
		else if (event.key === '8') way = 1;
		else if (event.key === '2') way = -1;
		else if (event.key === '5') put(0, 0, true);
		else if (event.key === 'Backspace' && way !== 0) way = 0;
		else if (event.key === 'Backspace') back();
		else if (event.key === 'Enter' && ready) log();
		else return false;
		return true;
	}
</script>

<div class="set">
	<Stepper
		label="From"
		quantity="distance"
		value={distance}
		step={step_m}
		low={view.limits.distance_m!.low}
		high={view.limits.distance_m!.high}
		bind:unread={unread.distance}
		onvalue={unlogged.pick}
	/>
	{#if by === null}
		<Stepper
			label={unset ? 'Tip under the spot, to be set' : 'Tip under the spot'}
			quantity="spot"
			value={setting}
			step={imperial ? 2.54 : 1}
			low={view.limits.gap_cm!.low}
			high={view.limits.gap_cm!.high}
			bind:unread={unread.setting}
			onvalue={(v) => (unlogged.own = v)}
		/>
	{:else}
		<Stepper
			label={unset ? 'Crawl, to be set' : own === null ? 'Crawl, as the card says' : 'Crawl'}
			quantity={QUANTITY[by]}
			value={setting}
			step={steps[by]}
			low={view.limits.crawl_mm!.low / each}
			high={view.limits.crawl_mm!.high / each}
			bind:unread={unread.setting}
			onvalue={(v) => (unlogged.own = v)}
		/>
	{/if}
</div>
{#if next}
	<p class="next" class:away={arrows.length > 0}>
		<button class="link" onclick={() => take(next)}
			>{exactly(reference.text(next.distance_m, 'distance'))}</button
		>
		<span class="quiet"
			>is most telling next: it settles {reference.text(100 * next.settles, 'percent')} of what is unsure</span
		>
	</p>
{/if}
{#if over_cm}<p>
		Beyond point-on: hold the tip {reference.text(over_cm, 'spot')} over the spot.
	</p>{/if}
<ButtPlate
	label="This end: tap where each arrow landed"
	places={arrows.map((a, i) => ({ ...a, number: i + 1 }))}
	{half}
	most={400}
	table={false}
	ontap={put}
	note={arrows.length ? '' : 'tap where each arrow landed; the middle is the spot'}
/>
<p class="told" aria-live="polite">
	{#if way}{way > 0 ? 'High' : 'Low'} by how many times {reference.text(keyed_cm, 'spot')}? 0 to 9.
	{:else if unset}The card has no line at this distance: set how you shoot it first.
	{:else if arrows.length}{heights.join('  ')} {reference.unit('spot').label}
	{:else}<span class="keys"
			>Keys: 5 on the spot; 8 high or 2 low, then 0 to 9 times {reference.text(keyed_cm, 'spot')};
			Enter logs.</span
		>{/if}
</p>
<div class="deeds">
	<button class="act plain" disabled={!arrows.length} onclick={back}>Take one back</button>
	<button
		class="act plain"
		aria-pressed={unlogged.sighters}
		onclick={() => (unlogged.sighters = !unlogged.sighters)}>Sighters</button
	>
	<button class="act log" disabled={!ready} onclick={log}>Log {arrows.length || 'the end'}</button>
</div>

<style>
	.set {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0 1rem;
		margin-bottom: 0.4rem;
	}
	.next {
		display: flex;
		gap: 0.5rem;
		align-items: center;
		font-size: 0.9rem;
		line-height: 1.2;
	}
	/* What is tapped must not move under the finger. */
	.away {
		visibility: hidden;
	}
	.told {
		min-height: 1.5rem;
		font-weight: 600;
		text-align: center;
		white-space: pre-wrap;
	}
	.keys {
		font-weight: 400;
		color: var(--quiet);
		font-size: 0.85rem;
	}
	@media (pointer: coarse) {
		.keys {
			display: none;
		}
	}
	.deeds {
		display: grid;
		grid-template-columns: 1fr 1fr 1.4fr;
		gap: 0.6rem;
	}
	.deeds .act {
		min-height: 56px;
		padding: 0.2rem 0.4rem;
	}
	.log {
		font-size: 1.1rem;
	}
</style>
