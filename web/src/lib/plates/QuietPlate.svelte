<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { extent, ruler } from '$lib/charts/plot';
	import Rule from '$lib/charts/Rule.svelte';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';

	/** The six checks in order: each with its shots before and after, and what the change made. */
	const bench = useBench();
	const done = $derived(bench().bench.quiet?.done ?? []);
	const following = $derived(bench().bench.quiet?.next);
	const checks = $derived(reference.catalog?.quiet ?? []);
	const made = $derived<string[]>(bench().bench.quiet?.made ?? []);
	const of = (id: string) => [...done].reverse().find((d) => d.check === id);
	const colours = {
		quieter: 'var(--moss)',
		louder: 'var(--ochre)',
		same: 'var(--quiet)',
		looked: 'var(--quiet)'
	};
	const all = $derived(done.flatMap((d) => [...d.before_db, ...d.after_db]));
	const word = (id: string) => (of(id) ? 'looked, nothing found' : 'swept on Brace height');
	const level = (value: number, spread?: number) =>
		reference.valueText({ value, quantity: 'level', plus_minus: spread ?? null });
</script>

<Plate
	label="The checks in order, with levels before and after each change"
	height={all.length ? 300 : 240}
	heads={['Check', 'Before', 'After', 'Change']}
	rows={checks.map((c) => {
		const d = of(c.id);
		return d?.difference_db
			? [
					c.title,
					level(d.before_mean_db!),
					level(d.after_mean_db!),
					level(d.difference_db.value, d.difference_db.plus_minus)
				]
			: [
					c.title,
					'',
					'',
					d || made.includes(c.id) ? word(c.id) : following === c.id ? 'next' : 'open'
				];
	})}
>
	{#snippet children(width, height)}
		{@const slim = narrow(width)}
		{@const x = ruler(
			all.length ? extent(all, 1) : [0, 1],
			slim ? 150 : 200,
			width - (slim ? 92 : 150)
		)}
		{@const to = width - (slim ? 84 : 140)}
		{@const row = (height - 40) / Math.max(checks.length, 1)}
		{#each checks as check, i (check.id)}
			{@const y = 22 + i * row}
			{@const d = of(check.id)}
			{@const next = following === check.id}
			{@const ticked = made.includes(check.id)}
			<circle
				cx="16"
				cy={y}
				r="11"
				fill={ticked ? 'var(--moss)' : 'var(--paper)'}
				stroke={ticked ? 'var(--moss)' : next ? 'var(--heather)' : 'var(--line)'}
				stroke-width="1.6"
			/>
			<text
				x="16"
				y={y + 4.5}
				text-anchor="middle"
				style:fill={ticked ? 'var(--paper)' : undefined}
				style:font-weight="600">{i + 1}</text
			>
			<text x="36" y={y + 4.5} style:font-weight={next ? 700 : 400}>{check.title}</text>
			{#if next}<text x="36" y={y + 20} class="q" style:fill="var(--heather)">next</text>{/if}
			<path d="M{x.range()[0]} {y}H{x.range()[1]}" stroke="var(--hair)" />
			{#if d?.difference_db}
				{@const a = d.before_mean_db!}
				{@const b = d.after_mean_db!}
				{#each d.before_db as v, j (j)}<circle
						cx={x(v)}
						cy={y - 6}
						r="2.6"
						fill="none"
						stroke="var(--quiet)"
					/>{/each}
				{#each d.after_db as v, j (j)}<circle
						cx={x(v)}
						cy={y + 6}
						r="2.6"
						fill="var(--heather)"
					/>{/each}
				<path d="M{x(a)} {y - 12}v12M{x(b)} {y}v12" stroke="var(--ink)" stroke-width="2" />
				<path d="M{x(a)} {y}H{x(b)}" stroke={colours[d.verdict]} stroke-width="3" />
				<text x={to} y={y + 4.5} style:fill={colours[d.verdict]} style:font-weight="600"
					>{level(d.difference_db.value, d.difference_db.plus_minus)}</text
				>
			{:else if ticked}
				<text class="q" x={x.range()[0]} y={y - 6}>{word(check.id)}</text>
			{/if}
		{/each}
		{#if all.length}
			<Rule {x} y={height - 26} ticks={6} line={false} />
			<text class="q" x={width} text-anchor="end" y={height - 6}>dB, this day only</text>
		{:else}
			<text class="q" x={width} y={height - 6} text-anchor="end"
				>Levels before and after each change stand here.</text
			>
		{/if}
	{/snippet}
</Plate>
