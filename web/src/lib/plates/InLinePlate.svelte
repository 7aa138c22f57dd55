<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { drag } from './drag';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';

	/** The bow seen from behind, the string beside its middle drawn wider than it is. */
	type Place = 'upper' | 'riser' | 'lower';
	let { onset }: { onset: (mark: Place, mm: number) => void } = $props();
	const bench = useBench();
	const told = $derived(bench().bench.in_line);
	const takedown = $derived(bench().bench.takedown_recurve);
	const WIDER = 9; // pixels for a millimetre beside the middle
	const MOST = 12; // mm that are drawn
	const READ = 0.5; // mm, what a ruler is read to
	const learnt = $derived(told?.learnt?.told ?? null);
	const offsets = $derived<Record<Place, number | null>>({
		upper: learnt?.[0]?.offset_mm ?? null,
		riser: told?.riser_mm ?? null,
		lower: learnt?.[1]?.offset_mm ?? null
	});
	const expected = $derived<Record<Place, number | null>>({
		upper: learnt?.[0]?.expected_mm ?? null,
		riser: null,
		lower: learnt?.[1]?.expected_mm ?? null
	});
	const turns = $derived(told?.learnt?.step_turns ?? [0, 0]);
	const places = $derived<Place[]>(takedown ? ['upper', 'riser', 'lower'] : ['riser']);
	const name: Record<Place, string> = {
		upper: 'upper mark',
		riser: "riser's middle",
		lower: 'lower mark'
	};
	const side = (mm: number): string => (mm > 0 ? 'right' : 'left');
	const NONE = 0.05; // mm: shown as nought
	const said = (mm: number | null): string => {
		if (mm === null) return 'not looked at';
		if (Math.abs(mm) < NONE) return 'over it';
		return `${reference.text(Math.abs(mm), 'small')} ${side(mm)}`;
	};
	const shown = (mm: number): number => Math.max(-MOST, Math.min(MOST, mm));
</script>

<Plate
	label="The bow seen from behind, and the string beside its middle"
	height={(width) => (narrow(width) ? 420 : 400)}
	heads={['Place', 'String lies', 'After the next turn']}
	rows={places.map((p) => [
		name[p],
		said(offsets[p]),
		expected[p] === null ? '' : said(expected[p])
	])}
>
	{#snippet children(width, height)}
		{@const slim = narrow(width)}
		{@const mid = slim ? width * 0.36 : width * 0.42}
		{@const top = 14}
		{@const bottom = height - 14}
		{@const half = (bottom - top) / 2}
		{@const centre = top + half}
		{@const block = half * 0.42}
		{@const y = { upper: centre - block, riser: centre, lower: centre + block }}
		{@const at = (mm: number) => mid + shown(mm) * WIDER}
		<!-- Limbs and riser from behind. -->
		<path
			d="M{mid - 15} {centre - half * 0.36}L{mid - 6} {top}H{mid + 6}L{mid + 15} {centre -
				half * 0.36}Z M{mid - 15} {centre + half * 0.36}L{mid - 6} {bottom}H{mid + 6}L{mid +
				15} {centre + half * 0.36}Z"
			fill="none"
			stroke="var(--ink)"
			stroke-width="1.4"
		/>
		<path
			d="M{mid - 15} {centre - half * 0.38}H{mid + 15}L{mid + 11} {centre - 22}L{mid +
				9} {centre}L{mid + 11} {centre + 22}L{mid + 15} {centre + half * 0.38}H{mid - 15}L{mid -
				11} {centre + 22}L{mid - 9} {centre}L{mid - 11} {centre - 22}Z"
			fill="url(#wood)"
			stroke="var(--ink)"
		/>
		<path d="M{mid} {top}V{bottom}" stroke="var(--quiet)" stroke-dasharray="2 4" />
		{#each places as place (place)}
			{#if place !== 'riser'}
				<rect
					x={mid - MOST * WIDER}
					y={y[place] - 8}
					width={MOST * WIDER * 2}
					height="16"
					fill="var(--paper)"
					stroke="var(--line)"
				/>
				{#each [-10, -5, 0, 5, 10] as mm (mm)}
					<path
						d="M{at(mm)} {y[place] + 8}v{mm ? -6 : -16}"
						stroke="var(--{mm ? 'quiet' : 'ink'})"
					/>
					{#if place === 'upper' && mm === -10}
						<text class="q num" x={at(mm)} y={y[place] - 13} text-anchor="middle"
							>{reference.text(10, 'small')}</text
						>
					{/if}
				{/each}
			{/if}
		{/each}
		{#if takedown && offsets.upper !== null && offsets.lower !== null}
			{@const a = at(offsets.upper)}
			{@const b = at(offsets.lower)}
			{@const slope = (b - a) / (y.lower - y.upper)}
			<path
				d="M{a - slope * (y.upper - top)} {top}L{b + slope * (bottom - y.lower)} {bottom}"
				stroke="var(--heather)"
				stroke-width="1.8"
				fill="none"
			/>
			{#if turns.some((t) => t) && expected.upper !== null && expected.lower !== null}
				<path
					d="M{at(expected.upper)} {y.upper}L{at(expected.lower)} {y.lower}"
					stroke="var(--ghost)"
					stroke-width="2"
					stroke-dasharray="6 4"
				/>
			{/if}
		{:else if offsets.riser !== null}
			<path d="M{at(offsets.riser)} {top}V{bottom}" stroke="var(--heather)" stroke-width="1.8" />
		{/if}
		{#each places as place, i (place)}
			{@const mm = offsets[place]}
			<circle
				cx={at(mm ?? 0)}
				cy={y[place]}
				r="7"
				fill={mm === null ? 'var(--paper)' : 'var(--heather)'}
				stroke="var(--heather)"
				style:cursor="ew-resize"
				use:drag={(x) => onset(place, shown(Math.round((x - mid) / WIDER / READ) * READ))}
			/>
			<text x={mid + MOST * WIDER + 14} y={y[place] - 2}>{name[place]}</text>
			<text class="q" x={mid + MOST * WIDER + 14} y={y[place] + 14}>{said(mm)}</text>
			{#if place !== 'riser' && turns[i ? 1 : 0]}
				<text
					x={mid + MOST * WIDER + 14}
					y={y[place] + 30}
					style:fill="var(--heather)"
					style:font-weight="600"
					>{reference.text(Math.abs(turns[i ? 1 : 0]!), 'bolt')}
					{side(turns[i ? 1 : 0]!)}</text
				>
			{/if}
		{/each}
		<text class="q" x={mid - MOST * WIDER} y={bottom + 2}>left</text>
		<text class="q" x={mid + MOST * WIDER} y={bottom + 2} text-anchor="end">right</text>
	{/snippet}
</Plate>
