<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import Plate from './Plate.svelte';

	/** A butt face on: numbered places on it, some of them ghosts; a tap puts the next one. */
	interface Place {
		number: number;
		right_cm: number;
		up_cm: number;
		/** What has landed here is quiet; what stands out is not. */
		loud?: boolean;
		/** A bare shaft is a ring, any other a cross. */
		bare?: boolean;
	}
	interface Props {
		label: string;
		places: Place[];
		/** Half of what is drawn [cm]. */
		half: number;
		/** An archer's usual spread about the middle [cm]. */
		spread?: number | null;
		ontap?: (right_cm: number, up_cm: number) => void;
		note?: string;
		/** As high as it is drawn where there is room. */
		most?: number;
		/** Whether its numbers can be had as a table; not where they stand beside it. */
		table?: boolean;
	}
	let {
		label,
		places,
		half,
		spread = null,
		ontap,
		note = '',
		most = 300,
		table = true
	}: Props = $props();
	const rings = $derived([0.25, 0.5, 0.75, 1].map((share) => share * half));
</script>

<Plate
	{label}
	height={most}
	least={220}
	heads={['Shaft', 'Right', 'Up']}
	rows={(table ? places : []).map((p) => [
		String(p.number),
		reference.text(p.right_cm, 'spot'),
		reference.text(p.up_cm, 'spot')
	])}
>
	{#snippet children(width, height)}
		{@const radius = Math.min(width, height - 40) / 2 - 4}
		{@const cx = width / 2}
		{@const cy = radius + 22}
		{@const scale = radius / half}
		<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
		<rect
			x={cx - radius}
			y={cy - radius}
			width={2 * radius}
			height={2 * radius}
			fill="var(--raised)"
			stroke="var(--line)"
			style:cursor={ontap ? 'crosshair' : undefined}
			onclick={(event) => {
				const box = (event.currentTarget as SVGRectElement).getBoundingClientRect();
				const shown = box.width / (2 * radius);
				ontap?.(
					(event.clientX - box.left) / shown / scale - half,
					half - (event.clientY - box.top) / shown / scale
				);
			}}
		/>
		<g pointer-events="none">
			<path
				d="M{cx - radius} {cy}H{cx + radius}M{cx} {cy - radius}V{cy + radius}"
				stroke="var(--line)"
			/>
			{#each rings as ring (ring)}
				<path
					d="M{cx + ring * scale} {cy - 4}v8M{cx - ring * scale} {cy - 4}v8M{cx - 4} {cy +
						ring * scale}h8M{cx - 4} {cy - ring * scale}h8"
					stroke="var(--quiet)"
				/>
			{/each}
			{#if spread}
				<circle
					{cx}
					{cy}
					r={spread * scale}
					fill="var(--moss-wash)"
					fill-opacity="0.6"
					stroke="var(--moss)"
					stroke-dasharray="4 3"
				/>
			{/if}
			{#each places as place (place.number)}
				{@const x = cx + place.right_cm * scale}
				{@const y = cy - place.up_cm * scale}
				{#if place.bare}<circle
						cx={x}
						cy={y}
						r="5"
						fill="var(--raised)"
						stroke="var(--heather)"
						stroke-width="1.8"
					/>{:else}<path
						d="M{x - 4} {y - 4}l8 8m0 -8l-8 8"
						stroke="var(--{place.loud ? 'ochre' : 'ink'})"
						stroke-width="1.6"
					/>{/if}
				<text
					class="halo num"
					x={x + 7}
					y={y - 5}
					style:font-weight={place.loud ? 700 : 400}
					style:fill={place.loud ? 'var(--ochre)' : undefined}>{place.number}</text
				>
			{/each}
			<text class="q" x={cx + radius} y={cy + radius + 15} text-anchor="end"
				>{reference.text(half, 'spot')} to the edge</text
			>
			{#if note}<text class="q" x={cx} y="14" text-anchor="middle">{note}</text>{/if}
		</g>
	{/snippet}
</Plate>
