<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import { line } from 'd3-shape';
	import { api, ApiProblem, told } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Axes from '$lib/plates/Axes.svelte';
	import Label from '$lib/plates/Label.svelte';
	import Plate from '$lib/plates/Plate.svelte';
	import TrialList from './TrialList.svelte';

	/** A new string's brace height over the hours it stood braced. */
	const bench = useBench();
	const settling = $derived(bench().bench.trials.settling);
	const now = $derived(bench().bench.brace?.brace_in ?? null);
	const natural = $derived(bench().value('string.material') === 'natural');
	let brace = $state('');
	let hours = $state('');
	let problem = $state<string | null>(null);
	type Pair = [number, number];
	const b = (v: number) => reference.inShown(v, 'brace');

	async function read(text: string, quantity: string): Promise<number> {
		const body = { text, quantity, unit: reference.unit(quantity).id };
		return (await told(api.POST('/api/units/parse', { body }))).value;
	}

	async function log(fresh: boolean): Promise<void> {
		problem = null;
		try {
			const braced = fresh
				? 0
				: hours.trim() === '' && settling?.hours_now != null
					? Math.round(settling.hours_now * 10) / 10
					: await read(hours, 'hours');
			const trial = {
				kind: 'settling' as const,
				hours: fresh ? 0 : Math.max(braced, 0.1),
				brace_height_in: brace.trim() === '' && now !== null ? now : await read(brace, 'brace'),
				reference: bench().bench.rig.bow!.brace_reference!,
				day: '',
				notes: ''
			};
			if (await bench().log('string', trial)) brace = hours = '';
			else problem = bench().fault;
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}
</script>

{#if natural}
	<p class="quiet">
		Natural fibre moves with the weather and does not settle for good: keep a tied, adjustable end
		and measure the brace height each time.
	</p>
{:else}
	{#if settling}
		<Plate
			label="Brace height of the new string over the hours it stood braced"
			height={220}
			heads={['Hours braced', 'Brace']}
			rows={settling.readings.map(([h, v]) => [
				reference.text(h!, 'hours'),
				reference.text(v!, 'brace')
			])}
		>
			{#snippet children(width, height)}
				{@const curve = settling.hours.map((h, i): Pair => [h, b(settling.brace_in[i]!)])}
				{@const values = [
					...curve.map((c) => c[1]),
					...settling.readings.map((r) => b(r[1]!)),
					b(settling.settles_at_in.value)
				]}
				{@const x = scaleLinear()
					.domain([0, settling.hours[settling.hours.length - 1]!])
					.range([52, width - 16])}
				{@const y = scaleLinear()
					.domain([Math.min(...values), Math.max(...values)])
					.nice()
					.range([height - 44, 24])}
				{@const end = b(settling.settles_at_in.value)}
				<path
					d="M{x.range()[0]} {y(end)}H{x.range()[1]}"
					stroke="var(--moss)"
					stroke-dasharray="4 3"
				/>
				<text
					class="halo"
					x={x.range()[1]! - 4}
					y={y(end) - 6}
					text-anchor="end"
					style:fill="var(--moss)"
					><Label
						text={`comes to ${reference.valueText({ ...settling.settles_at_in, quantity: 'brace' })}`}
					/></text
				>
				<path
					d={line<Pair>(
						(p) => x(p[0]),
						(p) => y(p[1])
					)(curve)}
					fill="none"
					stroke="var(--ink)"
					stroke-width="1.8"
				/>
				<Axes
					{x}
					{y}
					xLabel="hours braced"
					yLabel="brace height, {reference.unit('brace').label}"
				/>
				{#each settling.readings as [h, v], i (i)}
					<path d="M{x(h!) - 5} {y(b(v!))}h10m-5 -5v10" stroke="var(--heather)" stroke-width="2" />
				{/each}
			{/snippet}
		</Plate>
	{/if}
	<form
		class="readings"
		onsubmit={(e) => {
			e.preventDefault();
			void log(!settling);
		}}
	>
		<div class="line">
			<strong>Settling</strong>
			<input
				class="line-input num"
				bind:value={brace}
				placeholder={now === null ? 'brace' : reference.text(now, 'brace', false)}
				aria-label="Brace of the new string"
			/>
			<span class="quiet">{reference.unit('brace').label}</span>
			{#if settling}
				<span class="quiet">after</span>
				<input
					class="line-input num"
					bind:value={hours}
					placeholder={settling.hours_now == null ? 'hours' : settling.hours_now.toFixed(1)}
					aria-label="Hours braced"
				/>
				<span class="quiet">h braced</span>
				<button class="act" disabled={bench().busy}>Log this reading</button>
			{/if}
			<button
				type="button"
				class:act={!settling}
				class:link={settling}
				disabled={bench().busy}
				onclick={() => log(true)}>New string put on now</button
			>
		</div>
		<p class="quiet" class:wrong={problem} aria-live="polite">
			{problem ??
				'Put on a new string, measure at once, then again after some hours and tomorrow morning. The schedule reminds you.'}
		</p>
	</form>
	<TrialList kinds={['settling']} empty="No new string was followed here yet." />
{/if}
