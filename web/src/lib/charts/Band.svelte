<script lang="ts">
	import { area } from 'd3-shape';
	import type { Plot, Tone } from './plot';

	/** How sure a curve is: from its low to its high along the way. */
	type Row = readonly [x: number, low: number, high: number];
	let { at, rows, tone = 'heather' }: { at: Plot; rows: readonly Row[]; tone?: Tone } = $props();

	const drawn = $derived(
		area<Row>(
			(r) => at.x(r[0]),
			(r) => at.y(r[1]),
			(r) => at.y(r[2])
		)([...rows])
	);
</script>

<path d={drawn} fill="var(--{tone}-wash)" />
