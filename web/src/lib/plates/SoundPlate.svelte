<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { ruler } from '$lib/charts/plot';
	import Rule from '$lib/charts/Rule.svelte';
	import Plate from './Plate.svelte';

	/** A recording's outline with what was found in it: a press takes a shot out or in again, a press
	    between them adds one. While one's own are marked, each sound can be pressed. */
	interface Props {
		sound: Schemas['Sound'];
		out: number[];
		marking?: boolean;
		chosen?: number | null;
		onpress: (at: number) => void;
		onadd: (at: number) => void;
	}
	let { sound, out, marking = false, chosen = null, onpress, onadd }: Props = $props();
	const words: Record<string, string> = {
		shot: 'shot',
		arrival: 'arrival',
		click: 'click',
		other: 'other'
	};
	const spoilt = { clipped: 'clipped', cut: 'cut off', wind: 'blown over' };
	/** One stop for the Tab key; the arrows go from sound to sound. */
	const places = $derived(
		sound.events.filter((e) => marking || e.kind === 'shot').map((e) => e.at_s)
	);
	let last = $state<number | null>(null);
	const active = $derived(last !== null && places.includes(last) ? last : places[0]);
	function key(e: KeyboardEvent & { currentTarget: Element }, at: number): void {
		const by = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
		if (by !== undefined) {
			last = places[Math.min(Math.max(places.indexOf(at) + by, 0), places.length - 1)]!;
			e.currentTarget.parentElement?.querySelector<SVGElement>(`[data-at="${last}"]`)?.focus();
		} else if (e.key === 'Enter' || e.key === ' ') onpress(at);
		else return;
		e.preventDefault();
	}
	const low = $derived(sound.noise_db - 6);
	const high = $derived(Math.max(...sound.outline_db, low + 10) + 4);
</script>

<Plate
	label="The recording, with shots, arrivals and clicks"
	height={132}
	heads={['At, s', 'What', 'Level, dB', 'Decay, ms', 'Tone, Hz']}
	rows={sound.events.map((e) => [
		e.at_s.toFixed(2),
		words[e.kind] +
			(out.includes(e.at_s) ? ', taken out' : '') +
			(e.spoilt && e.kind === 'shot' ? `, not used: ${spoilt[e.spoilt]}` : ''),
		e.level_db.toFixed(1),
		e.decay_ms == null ? '' : e.decay_ms.toFixed(0),
		e.tone_hz == null ? '' : e.tone_hz.toFixed(0)
	])}
>
	{#snippet children(width, height)}
		{@const x = ruler([0, sound.duration_s], 6, width - 6)}
		{@const y = ruler([low, high], height - 24, 26).clamp(true)}
		<path
			d="M{x(0)} {y(low)}{sound.outline_db
				.map((v, i) => `L${x(i * sound.slice_s)} ${y(v)}`)
				.join('')}L{x(sound.duration_s)} {y(low)}Z"
			fill="var(--ghost)"
			opacity="0.7"
		/>
		<!-- By keyboard a shot is added with its time, typed beside the recording. -->
		<rect
			x="6"
			y="20"
			width={width - 12}
			height={height - 44}
			fill="transparent"
			role="presentation"
			style:cursor={marking ? 'default' : 'copy'}
			onclick={(e) => !marking && onadd(x.invert(e.offsetX))}
		/>
		<Rule {x} y={y(low)} ticks={8} from={0} words={16} />
		<text class="q" x={width - 6} y={y(low) + 16} text-anchor="end">s</text>
		{#each sound.events as event (event.at_s)}
			{@const gone = out.includes(event.at_s)}
			{#if marking}
				{@const here = chosen === event.at_s}
				<g
					role="button"
					tabindex={event.at_s === active ? 0 : -1}
					data-at={event.at_s}
					onfocus={() => (last = event.at_s)}
					aria-pressed={here}
					aria-label="Sound at {event.at_s.toFixed(2)} s, {event.level_db.toFixed(1)} dB"
					onclick={() => onpress(event.at_s)}
					onkeydown={(e) => key(e, event.at_s)}
					style:cursor="pointer"
				>
					<path
						d="M{x(event.at_s)} {y(low)}V{y(event.level_db)}"
						stroke="var(--heather)"
						stroke-width={here ? 3 : 1.6}
					/>
					<circle
						cx={x(event.at_s)}
						cy={y(event.level_db)}
						r={here ? 9 : 6}
						fill={here ? 'var(--heather)' : 'var(--paper)'}
						stroke="var(--heather)"
						stroke-width="1.6"
					/>
				</g>
			{:else if event.kind === 'shot'}
				<g
					role="button"
					tabindex={event.at_s === active ? 0 : -1}
					data-at={event.at_s}
					onfocus={() => (last = event.at_s)}
					aria-pressed={!gone}
					aria-label="Shot at {event.at_s.toFixed(2)} s, {event.level_db.toFixed(1)} dB"
					onclick={() => onpress(event.at_s)}
					onkeydown={(e) => key(e, event.at_s)}
					style:cursor="pointer"
				>
					<path
						d="M{x(event.at_s)} {y(low)}V20"
						stroke={gone ? 'var(--quiet)' : 'var(--heather)'}
						stroke-width="1.6"
						stroke-dasharray={gone ? '2 3' : ''}
					/>
					<circle
						cx={x(event.at_s)}
						cy="13"
						r="8"
						fill={gone || !event.usable ? 'var(--paper)' : 'var(--heather)'}
						stroke={gone ? 'var(--quiet)' : 'var(--heather)'}
					/>
					{#if gone}<path
							d="M{x(event.at_s) - 4} 9l8 8m0 -8l-8 8"
							stroke="var(--quiet)"
							stroke-width="1.5"
						/>{/if}
				</g>
			{:else}
				<path
					d="M{x(event.at_s)} {y(low)}v-{event.kind === 'arrival' ? 46 : 22}"
					stroke="var(--quiet)"
					stroke-dasharray={event.kind === 'arrival' ? '4 2' : '1 2'}
				/>
			{/if}
		{/each}
	{/snippet}
</Plate>
