<script lang="ts">
	import { api, ApiProblem, told } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Measure from '$lib/format/Measure.svelte';

	/** Readings of a bow scale: draw and weight, each typed as it is said. */
	const bench = useBench();
	type Pair = [number, number];
	const readings = $derived((bench().value('bow.measured') as Pair[] | undefined) ?? []);
	const true_ = $derived(bench().bench.force_draw?.true_draw_in.value ?? null);
	let draw = $state('');
	let weight = $state('');
	let problem = $state<string | null>(null);
	const refused = $derived(
		problem ??
			bench().refused['bow.measured'] ??
			bench().bench.stations.find((s) => s.problem?.field === 'bow.measured')?.problem?.reason
	);

	async function read(text: string, quantity: string): Promise<number> {
		const body = { text, quantity, unit: reference.unit(quantity).id };
		return (await told(api.POST('/api/units/parse', { body }))).value;
	}

	async function add(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		try {
			const at = draw.trim() === '' && true_ != null ? true_ : await read(draw, 'draw');
			const pulls = await read(weight, 'weight');
			const others = readings.filter(([d]) => Math.abs(d - at) > 1e-6);
			bench().set(
				'bow.measured',
				[...others, [at, pulls]].sort((a, b) => a[0]! - b[0]!)
			);
			draw = '';
			weight = '';
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}
</script>

<form class="readings" onsubmit={add}>
	<div class="line">
		<strong>Scale readings</strong>
		<input
			class="line-input num"
			bind:value={draw}
			placeholder={true_ == null ? 'draw' : reference.text(true_, 'draw', false)}
			aria-label="Draw of the reading"
		/>
		<span class="quiet">{reference.unit('draw').label} pulls</span>
		<input
			class="line-input num"
			bind:value={weight}
			placeholder="weight"
			aria-label="Weight of the reading"
		/>
		<span class="quiet">{reference.unit('weight').label}</span>
		<button class="act plain" disabled={!weight.trim()}>Add</button>
		{#each readings as [d, f], i (i)}
			<button
				type="button"
				class="reading"
				title="Take this reading out"
				onclick={() =>
					bench().set(
						'bow.measured',
						readings.filter((_, j) => j !== i)
					)}
			>
				<Measure value={{ value: f, quantity: 'weight' }} unit={false} /> at <Measure
					value={{ value: d, quantity: 'draw' }}
					unit={false}
				/> ×
			</button>
		{/each}
	</div>
	<p class="quiet" class:wrong={refused} aria-live="polite">
		{refused ??
			'Hook the scale on the string, pull to the mark and read. The curve then passes through your readings.'}
	</p>
</form>
