<script lang="ts">
	import Label from '$lib/charts/Label.svelte';
	import { narrow } from './frame';
	import Plate from './Plate.svelte';

	/** What to look for on a bow, drawn: seven places, as they look when something is wrong. */
	interface Props {
		places: { id: string; title: string; look: string; means: string }[];
		looked: string[];
		found: string[];
	}
	let { places, looked, found }: Props = $props();
	const SCENES = ['cracks', 'layers', 'twist', 'tips', 'fades', 'riser', 'string'];
	const SHORT: Record<string, string> = { tips: 'Limb nocks', fades: 'Limb meets riser' };
	const titles = $derived(Object.fromEntries(places.map((p) => [p.id, SHORT[p.id] ?? p.title])));
</script>

<Plate
	label="What to look for on a bow, place by place"
	height={(width) => (narrow(width) ? 368 : 184)}
	heads={['Place', 'Look', 'It means', 'Found']}
	rows={places.map((p) => [
		p.title,
		p.look,
		p.means,
		found.includes(p.id) ? 'found' : looked.includes(p.id) ? 'nothing' : 'not looked at'
	])}
>
	{#snippet children(width, height)}
		{@const rows = narrow(width) ? 2 : 1}
		{@const across = Math.ceil(SCENES.length / rows)}
		{@const each = width / across}
		{@const deep = height / rows}
		{#each SCENES as scene, i (scene)}
			{@const x = (i % across) * each + each / 2}
			{@const foot = (Math.floor(i / across) + 1) * deep}
			{@const hit = found.includes(scene)}
			{@const sign = hit ? 'var(--brick)' : 'var(--heather)'}
			<g transform="translate({x} {foot - deep + 78})">
				{#if scene === 'cracks'}
					<path d="M-16 62C-18 20 -15 -30 -9 -62H9C15 -30 18 20 16 62Z" fill="url(#wood)" />
					<path d="M-16 62C-18 20 -15 -30 -9 -62M16 62C18 20 15 -30 9 -62" class="edge" />
					<path
						d="M-12 -20l7 2 5 -2 9 3M-13 2l9 -2 6 3 10 -1M-9 24l8 2 8 -2"
						stroke={sign}
						class="sign"
					/>
				{:else if scene === 'layers'}
					<path d="M-34 36C-10 30 12 10 34 -34" class="edge" />
					<path d="M-30 44C-6 38 18 18 41 -28" class="edge" />
					<path d="M-38 29C-16 24 0 14 10 2" class="edge" />
					<path d="M10 2C18 -12 24 -24 24 -44" stroke={sign} class="sign" />
					<path d="M10 2C20 -8 27 -22 31 -38" stroke={sign} class="sign" stroke-dasharray="3 2" />
				{:else if scene === 'twist'}
					<path d="M-17 62L-8 -56L13 -50L17 62Z" fill="url(#wood)" />
					<path d="M-17 62L-8 -56L13 -50L17 62" class="edge" />
					<path d="M0 66V-66" class="edge" stroke-dasharray="4 3" />
					<path d="M0 62L9 -54" stroke={sign} class="sign" />
				{:else if scene === 'tips'}
					<path d="M-12 62L-9 -20L-13 -30L-7 -58H7L13 -30L9 -20L12 62Z" fill="url(#wood)" />
					<path d="M-12 62L-9 -20L-13 -30L-7 -58H7L13 -30L9 -20L12 62" class="edge" />
					<path d="M-15 -25C-5 -18 5 -18 15 -25" class="edge" />
					<path d="M4 -50l-3 12 5 8 -3 11" stroke={sign} class="sign" />
				{:else if scene === 'fades'}
					<path d="M-40 -8C-16 -8 4 -14 40 -30V30C4 14 -16 4 -40 4Z" fill="url(#wood)" />
					<path d="M-40 -8C-16 -8 4 -14 40 -30M40 30C4 14 -16 4 -40 4" class="edge" />
					<path d="M-40 -2C-14 -2 -2 -1 14 0" class="edge" />
					<path d="M-16 -7l3 5 -2 5M-8 -8l3 6 -2 6M0 -9l3 7 -2 7" stroke={sign} class="sign" />
				{:else if scene === 'riser'}
					<path
						d="M-14 -62C-20 -30 -6 -16 -4 -8C-16 0 -12 26 -14 62H12C14 30 6 12 10 -4C14 -14 8 -36 14 -62Z"
						fill="url(#wood)"
					/>
					<path
						d="M-14 -62C-20 -30 -6 -16 -4 -8C-16 0 -12 26 -14 62M12 62C14 30 6 12 10 -4C14 -14 8 -36 14 -62"
						class="edge"
					/>
					<path d="M-4 -8C0 2 -2 16 2 32" stroke={sign} class="sign" />
				{:else}
					<path d="M-3 -62V62M1 -62V62M4 -62V62" class="edge" />
					<path
						d="M-7 -16h14M-7 -11h14M-7 -6h14M-7 -1h14M-7 4h14M-7 9h14"
						class="edge"
						stroke-width="2"
					/>
					<path d="M4 12C14 22 16 32 8 40M-3 14C-12 20 -14 26 -10 30" stroke={sign} class="sign" />
				{/if}
			</g>
			<text
				{x}
				y={foot - 18}
				text-anchor="middle"
				style:font-size="11.5px"
				style:fill={hit ? 'var(--brick)' : undefined}
				style:font-weight={hit ? 700 : 400}><Label text={titles[scene] ?? ''} /></text
			>
			<text class="q" {x} y={foot - 3} text-anchor="middle"
				>{hit ? 'found' : looked.includes(scene) ? 'looked, nothing' : ''}</text
			>
		{/each}
	{/snippet}
</Plate>

<style>
	.edge {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.3;
	}
	.sign {
		fill: none;
		stroke-width: 2;
		stroke-linecap: round;
		stroke-linejoin: round;
	}
</style>
