<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import HearLevels, { type Levels } from '$lib/controls/HearLevels.svelte';
	import TrialList from '$lib/controls/TrialList.svelte';
	import Station from '$lib/frame/Station.svelte';
	import QuietPlate from '$lib/plates/QuietPlate.svelte';

	const bench = useBench();
	const one = new One();
	type CheckId = TrialOf<'quiet'>['check'];
	const checks = $derived(reference.catalog?.quiet ?? []);
	let chosen = $state<string | null>(null);
	const check = $derived(chosen ?? bench().bench.quiet?.next ?? 'brace');
	const note = $derived(checks.find((c) => c.id === check));
	let before = $state<Levels | null>(null);
	let after = $state<Levels | null>(null);
	let notes = $state('');
	let first = $state<HearLevels>();
	let second = $state<HearLevels>();

	/** Levels of two sources do not compare: what hears before hears after. */
	const mixed = $derived(before && after && before.by !== after.by);
	/** A loose strand and loose parts are looked at; where nothing was found that is a check too. */
	const looks = $derived(check === 'strand' || check === 'loose');

	async function log(): Promise<void> {
		if (!before || !after || mixed) return;
		await keep({
			before_db: before.levels,
			after_db: after.levels,
			heard_by: before.by,
			tone_before_hz: before.tone_hz,
			tone_before_db: before.tone_db,
			tone_after_hz: after.tone_hz,
			tone_after_db: after.tone_db
		});
	}

	const nothing = { before_db: [], after_db: [], heard_by: 'unknown' as const };
	type Heard = Pick<TrialOf<'quiet'>, 'before_db' | 'after_db' | 'heard_by'> &
		Partial<TrialOf<'quiet'>>;

	async function keep(heard: Heard): Promise<void> {
		const trial = { kind: 'quiet' as const, check: check as CheckId, ...heard, notes, day: '' };
		if (await bench().log('quiet', trial)) {
			chosen = null;
			notes = '';
			first?.clear();
			second?.clear();
			first?.focus();
		}
	}
</script>

<Station id="quiet">
	{#snippet plate()}<QuietPlate />{/snippet}
	{#snippet controls()}
		<form class="readings whole" onsubmit={one.on(log)}>
			<div class="line pick">
				<label
					><span class="sr-only">Check</span>
					<select value={check} onchange={(e) => (chosen = e.currentTarget.value)}>
						{#each checks as c, i (c.id)}<option value={c.id}>{i + 1}. {c.title}</option>{/each}
					</select></label
				>
				<span>{note?.do} <span class="quiet">{note?.why}</span></span>
			</div>
			<HearLevels
				bind:this={first}
				bind:value={before}
				label="Before"
				query={{ check, done: 'no' }}
				trial
			/>
			<HearLevels
				bind:this={second}
				bind:value={after}
				label="After"
				query={{ check, done: 'yes' }}
			/>
			<div class="line">
				<input
					class="line-input notes"
					bind:value={notes}
					maxlength="200"
					placeholder="what was changed"
					aria-label="What was changed"
				/>
				<button class="act" disabled={!before || !after || mixed || bench().busy}
					>Log this check</button
				>
				{#if looks && !before && !after}
					<button type="button" class="link" disabled={bench().busy} onclick={() => keep(nothing)}
						>Looked, found nothing</button
					>
				{/if}
				<span class="quiet" class:wrong={mixed} aria-live="polite"
					>{mixed
						? 'Before and after were heard by two sources: levels compare only within one.'
						: 'Clear range, safe backstop. Shoot three, make one change, shoot three more from the same place.'}</span
				>
			</div>
		</form>
	{/snippet}
	{#snippet more()}
		<TrialList kinds={['quiet']} empty="No check was measured yet." />
	{/snippet}
</Station>

<style>
	.pick {
		margin-bottom: 0.6rem;
	}
	.pick > span {
		flex: 1;
		font-size: 0.93rem;
	}
	.line .notes {
		width: 16rem;
	}
</style>
