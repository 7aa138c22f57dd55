<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { day } from '$lib/format/day';
	import SaidText from '$lib/format/SaidText.svelte';

	/** What is due when: an item is done by the measurement it asks for. */
	const bench = useBench();
	let { data } = $props();
	const items = $derived(data.items);
	let seen = bench().kept.seq;
	const groups: [when: string, title: string, none: string][] = [
		['now', 'Now', 'Nothing is due now.'],
		['coming', 'Coming', 'Nothing else is planned.'],
		['each_time', 'Each time out', '']
	];
	const due = $derived(items.filter((i) => i.when === 'now').length);
	const stations = $derived(
		Object.fromEntries((reference.catalog?.stations ?? []).map((s) => [s.id, s.title]))
	);

	$effect(() => {
		const { seq } = bench().kept;
		if (seq !== seen) void invalidate('rig:kept');
		seen = seq;
	});
</script>

<svelte:head><title>Schedule · {bench().bench.rig.name} · Lyrandis</title></svelte:head>

<h1>What is due when?</h1>
<p class="answer">
	{#if due}<strong>{due}</strong> thing{due === 1 ? '' : 's'} to do now; each is done by the measurement
		it asks for.{:else}Nothing is due now.{/if}
	<a class="link" href="/api/rigs/{bench().id}/schedule.ics" download>Days for your calendar</a>
</p>
{#if bench().fault}<p class="fault" role="alert">{bench().fault}</p>{/if}
{#each groups as [when, title, none] (when)}
	{@const inside = items.filter((i) => i.when === when)}
	<h2>{title}</h2>
	{#if inside.length === 0}<p class="quiet">{none}</p>{/if}
	<ul>
		{#each inside as item (item.id)}
			<li class={item.when}>
				<span class="day quiet">{item.day ? day(item.day, 'weekday') : ''}</span>
				<div>
					<strong><SaidText said={item.title} /></strong>
					<p><SaidText said={item.why} /></p>
					{#if item.last}<p class="quiet">Last, <SaidText said={item.last} /></p>{/if}
				</div>
				<span>
					<a class="link" href="/rig/{bench().id}/{item.station}">{stations[item.station]}</a>
					{#if item.id.startsWith('recheck-')}
						<button
							class="link"
							disabled={bench().busy}
							onclick={() => bench().check(item.station, 'provisional')}>Checked, it holds</button
						>
					{/if}
				</span>
			</li>
		{/each}
	</ul>
{/each}

<style>
	h1 {
		font-size: 2.05rem;
	}
	h2 {
		font-size: 1.12rem;
		font-weight: 600;
		margin-top: 1.3rem;
		border-bottom: 1px solid var(--ink);
		padding-bottom: 0.2rem;
	}
	.answer {
		font-size: 1.06rem;
		margin: 0.3rem 0 0.4rem;
	}
	.answer .link {
		margin-left: 1rem;
		font-size: 0.93rem;
	}
	.fault {
		color: var(--brick);
	}
	ul {
		list-style: none;
		padding: 0;
		max-width: 62rem;
	}
	li {
		display: grid;
		grid-template-columns: 12rem 1fr auto;
		gap: 1.2rem;
		padding: 0.55rem 0;
		border-bottom: 1px solid var(--hair);
	}
	li.now .day {
		color: var(--brick);
	}
	li p {
		font-size: 0.92rem;
	}
	li > span:last-child {
		display: flex;
		gap: 1.2rem;
		align-items: baseline;
		font-size: 0.92rem;
	}
	@media (max-width: 900px) {
		li {
			grid-template-columns: 1fr;
			gap: 0.2rem;
		}
	}
</style>
