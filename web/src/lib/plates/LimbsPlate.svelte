<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import BowShape from './BowShape.svelte';
	import { fit } from './frame';
	import Label from '$lib/charts/Label.svelte';
	import Plate from './Plate.svelte';

	/** The braced bow lying down, with what stands on each limb and what unlike limbs want. */
	const bench = useBench();
	const drawn = $derived(bench().bench.force_draw);
	const limbs = $derived(bench().bench.rig.limbs);
	const pair = $derived(bench().bench.limbs);
	const bolts = $derived(bench().bench.bolts);

	function marks(weight: number | null | undefined, kind: string | null | undefined): string {
		const parts = [kind ?? '', weight == null ? '' : reference.text(weight, 'weight')];
		return parts.filter(Boolean).join(', ') || 'marks not said';
	}
	function turns(value: number | undefined): string {
		if (!value) return 'bolt as marked';
		return `${Math.abs(value)} turn${Math.abs(value) === 1 ? '' : 's'} ${value > 0 ? 'out' : 'in'}`;
	}
	const nock = $derived.by(() => {
		if (!pair?.nock_mm || !pair.share) return 'nock point stays';
		const [a, b] = pair.nock_mm as [number, number];
		const [small, large] = [Math.abs(a), Math.abs(b)].sort((m, n) => m - n) as [number, number];
		const from = reference.text(small, 'nock_height', false);
		return `nock point ${from} to ${reference.text(large, 'nock_height')} ${b > 0 ? 'higher' : 'lower'}`;
	});
</script>

<Plate
	label="The two limbs with their marks, their bolts, and what they want of the nock point"
	height={170}
	heads={['Limb', 'Marks', 'Bolt']}
	rows={[
		['upper', marks(limbs?.upper_lbf, limbs?.upper_class), turns(limbs?.upper_turns)],
		['lower', marks(limbs?.lower_lbf, limbs?.lower_class), turns(limbs?.lower_turns)],
		['together', nock, bolts ? reference.text(bolts.weight_pct, 'percent_1') : '']
	]}
>
	{#snippet children(width, height)}
		{#if drawn}
			{@const at = fit(
				{ x0: -8, x1: 12, y0: -36, y1: 36 },
				{ left: 0, top: 0, width: height, height: width },
				false
			)}
			<g
				transform="translate({width / 2} {height / 2}) rotate(90) translate({-height / 2} {-width /
					2})"
			>
				<BowShape pose={drawn.drawing.brace} {at} />
			</g>
			{#each [{ x: 0.84, limb: 'upper limb', m: marks(limbs?.upper_lbf, limbs?.upper_class), t: turns(limbs?.upper_turns) }, { x: 0.16, limb: 'lower limb', m: marks(limbs?.lower_lbf, limbs?.lower_class), t: turns(limbs?.lower_turns) }] as side (side.limb)}
				<text class="halo" x={width * side.x} y="16" text-anchor="middle" style:font-weight="600"
					>{side.limb}</text
				>
				<text class="halo" x={width * side.x} y="33" text-anchor="middle"
					><Label text={side.m} /></text
				>
				<text class="q halo" x={width * side.x} y="50" text-anchor="middle"
					><Label text={side.t} /></text
				>
			{/each}
			<text
				class="halo"
				x={width / 2}
				y={height - 8}
				text-anchor="middle"
				style:fill="var(--heather)"
				style:font-weight="600"><Label text={nock} /></text
			>
		{/if}
	{/snippet}
</Plate>
