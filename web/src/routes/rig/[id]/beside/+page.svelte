<script lang="ts">
	import { invalidate, replaceState } from '$app/navigation';
	import { page } from '$app/state';
	import { api, told, type Schemas } from '$lib/api/client';
	import { Answer } from '$lib/bench/answer.svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import { latest } from '$lib/bench/latest';
	import { notify } from '$lib/bench/notice.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import SideBySide from '$lib/beside/SideBySide.svelte';
	import { day } from '$lib/format/day';
	import SaidText from '$lib/format/SaidText.svelte';

	/** This rig beside another, or beside itself on an earlier day. */
	const bench = useBench();
	let { data } = $props();
	const me = $derived(bench().id);
	const rigs = $derived(data.rigs.filter((r) => r.unreadable === null && !r.archived));
	const days = $derived(data.days);
	const asked = page.url.searchParams;
	let rig = $state(Number(asked.get('rig')) || bench().id);
	let seq = $state<number | null>(asked.has('seq') ? Number(asked.get('seq')) : null);
	let fault = $state<string | null>(null);
	let seen = bench().kept.seq;

	/** The days to choose from: this rig's own but the last, and how it began. */
	const earlier = $derived(days.slice(1));
	const at = $derived(rig === me ? (seq ?? earlier[0]?.seq ?? 0) : null);
	const other = $derived(at === null ? { rig } : { rig, seq: at });
	type Asked = { mine: number; other: { rig: number; seq?: number } };
	const answer = new Answer<Asked, Schemas['BesideView']>(() => ({ mine: me, other }));
	const view = $derived(answer.now);
	/** An entry in the midst of a day, asked for by its number. */
	const amidst = $derived(at !== null && at > 0 && !earlier.some((d) => d.seq === at));
	const stood = (seq: number | null): string => {
		if (!seq) return 'as it began';
		const found = earlier.find((d) => d.seq === seq);
		return found ? `on ${day(found.day, 'long')}` : `after entry ${seq}`;
	};
	const here = $derived(rig === me ? 'now' : bench().bench.rig.name!);
	const there = $derived(rig === me ? stood(at) : (view?.other.title ?? ''));
	const waits = $derived(
		bench().dirty ? 'Keep or take back your changes first: they are not in this.' : null
	);

	const look = latest<Asked>(async (wanted) => {
		try {
			const body = { mine: { rig: wanted.mine }, other: wanted.other };
			answer.take(wanted, await told(api.POST('/api/beside', { body })));
			fault = null;
		} catch (error) {
			fault = (error as Error).message;
		}
	});

	$effect(() => {
		const { seq: kept } = bench().kept;
		if (kept !== seen) void invalidate('rig:kept');
		seen = kept;
		look({ mine: me, other });
	});

	function choose(next: { rig: number; seq: number | null }): void {
		({ rig, seq } = next);
		const query = rig === me ? (seq === null ? '' : `?seq=${seq}`) : `?rig=${rig}`;
		replaceState(`/rig/${me}/beside${query}`, { ...page.state });
	}

	/** The next day of the history into the past, or towards now; null where there is none. */
	const before = $derived(at ? (earlier.find((d) => d.seq < at)?.seq ?? 0) : null);
	const later = $derived(at === null ? null : (earlier.findLast((d) => d.seq > at)?.seq ?? null));

	async function back(d: Schemas['Difference']): Promise<void> {
		if (!d.back) return;
		const why = rig === me ? (at ? `as ${there}` : there) : `as on ${there}`;
		if (d.back.slot && d.back.mark) {
			if (await bench().putOn(d.back.slot, { mark: d.back.mark }, why))
				notify(`${d.other || d.title} is on. Ctrl+Z takes it back.`);
		} else bench().propose(d.back.changes, why, d.back.station ?? null);
	}
</script>

<svelte:head><title>Side by side · {bench().bench.rig.name} · Lyrandis</title></svelte:head>

<h1>What is different?</h1>
<p class="answer" aria-live="polite">
	{#if fault}<span class="fault" role="alert">{fault}</span>
	{:else if view}<SaidText said={view.told.said} strong />
	{:else}Looking …{/if}
</p>

<div class="asked">
	<p class="field">
		<label for="beside">Beside</label>
		<select
			id="beside"
			value={rig}
			onchange={(e) => choose({ rig: Number(e.currentTarget.value), seq: null })}
		>
			<option value={me}>this rig, earlier</option>
			{#each rigs.filter((r) => r.id !== me) as one (one.id)}<option value={one.id}
					>{one.name}</option
				>{/each}
		</select>
	</p>
	{#if rig === me}
		<p class="field">
			<label for="stood">As it stood on</label>
			<select
				class="choose"
				id="stood"
				value={at ?? 0}
				onchange={(e) => choose({ rig: me, seq: Number(e.currentTarget.value) })}
			>
				{#each earlier as one (one.seq)}<option value={one.seq}
						>{day(one.day)}: {one.entries}
						{one.entries === 1 ? 'entry' : 'entries'}{#if one.stations.length}, {one.stations
								.map((s) => reference.catalog?.stations.find((c) => c.id === s)?.title)
								.join(', ')}{/if}</option
					>{/each}
				{#if amidst}<option value={at}>{stood(at)}</option>{/if}
				<option value={0}>as it began</option>
			</select>
		</p>
		<p class="steps">
			<button
				class="act plain"
				disabled={before === null}
				onclick={() => choose({ rig: me, seq: before })}>A day earlier</button
			>
			<button
				class="act plain"
				disabled={later === null}
				onclick={() => choose({ rig: me, seq: later })}>A day later</button
			>
		</p>
	{/if}
</div>
{#if view}<SideBySide {view} {here} {there} onback={back} {waits} />{/if}
{#if bench().fault}<p class="fault" role="alert">{bench().fault}</p>{/if}

<style>
	h1 {
		font-size: 2rem;
	}
	.answer {
		font-size: 1.1rem;
		min-height: 1.5em;
	}
	.asked {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 1.6rem;
		align-items: end;
		margin: 0.7rem 0 1rem;
	}
	.field {
		display: grid;
		max-width: 100%;
	}
	.field label {
		color: var(--quiet);
		font-size: 0.82rem;
		line-height: 24px;
	}
	.steps {
		display: flex;
		gap: 0.6rem;
	}
	.fault {
		color: var(--brick);
	}
	@media (max-width: 560px) {
		h1 {
			font-size: 1.5rem;
		}
	}
</style>
