<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import BowShape from './BowShape.svelte';
	import { fit } from './frame';
	import Plate from './Plate.svelte';

	/** The braced bow with each step's number where the step is done. */
	let { done }: { done: string[] } = $props();

	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const rig = $derived(bench().bench.rig);
	const steps = $derived(bench().bench.assembly ?? []);

	/** Where a place is on the braced bow, in inches, and which way its number stands off. */
	function spot(place: string): [x: number, y: number, off: 1 | -1] {
		const pose = drawn!.drawing.brace;
		const [tipX, tipY] = pose.upper_nock as [number, number];
		const riser = drawn!.drawing.riser_in / 2;
		const nock = pose.arrow_nock[0] ?? 7;
		const middle = pose.upper_limb[14] as [number, number];
		const places: Record<string, [number, number, 1 | -1]> = {
			upper_tip: [tipX, tipY, -1],
			lower_tip: [tipX, -tipY, -1],
			upper_limb: [middle[0], middle[1], -1],
			lower_limb: [middle[0], -middle[1], -1],
			upper_pocket: [-1, riser, -1],
			lower_pocket: [-1, -riser, -1],
			rest: [-1.2, 1.6, -1],
			grip: [-1.2, -4.6, -1],
			string: [nock, tipY * 0.45, 1],
			nock: [nock, 0, 1],
			archer: [nock, -tipY * 0.45, 1]
		};
		return places[place] ?? [0, 0, 1];
	}

	/** Numbers at one place stand beside each other. */
	const marks = $derived(
		drawn
			? steps.map((step, i) => {
					const before = steps.slice(0, i).filter((s) => s.place === step.place).length;
					return { step, n: i + 1, before, at: spot(step.place) };
				})
			: []
	);
</script>

<Plate
	label="The braced bow with each step where it is done"
	height={330}
	heads={['Step', 'What', 'Tool', 'State']}
	rows={steps.map((s, i) => [
		String(i + 1),
		s.text,
		s.tool ?? 'none',
		done.includes(s.id) ? 'done' : 'open'
	])}
>
	{#snippet children(width, height)}
		{#if drawn}
			{@const half = Math.max(rig.bow.length_in! / 2, 25)}
			{@const at = fit(
				{ x0: -12, x1: 20, y0: -half, y1: half },
				{ left: 0, top: 6, width, height: height - 12 },
				rig.archer.hand === 'left'
			)}
			<BowShape pose={drawn.drawing.brace} {at} />
			{#each marks as { step, n, before, at: [x, y, off] } (step.id)}
				{@const cx = at.x(x) + off * at.way * (30 + before * 27)}
				{@const ready = done.includes(step.id)}
				{#if before === 0}
					<path
						d="M{at.x(x)} {at.y(y)}L{cx} {at.y(y)}"
						stroke="var(--quiet)"
						stroke-dasharray="2 3"
					/>
				{/if}
				<circle
					{cx}
					cy={at.y(y)}
					r="11"
					fill={ready ? 'var(--moss)' : 'var(--paper)'}
					stroke={ready ? 'var(--moss)' : 'var(--ochre)'}
					stroke-width="1.5"
				/>
				<text
					x={cx}
					y={at.y(y) + 4.5}
					text-anchor="middle"
					style:fill={ready ? 'var(--paper)' : undefined}
					style:font-weight="600">{n}</text
				>
			{/each}
		{/if}
	{/snippet}
</Plate>
