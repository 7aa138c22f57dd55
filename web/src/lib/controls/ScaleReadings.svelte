<script lang="ts">
	import { onDestroy, tick } from 'svelte';
	import { api, ApiProblem, told } from '$lib/api/client';
	import { follow } from '$lib/api/job';
	import { upload } from '$lib/api/upload';
	import { useBench } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import { refocus } from '$lib/frame/focus';
	import MeasuredBy from './MeasuredBy.svelte';
	import Measure from '$lib/format/Measure.svelte';

	/** Readings of a bow scale: draw and weight, each typed as it is said. */
	const bench = useBench();
	const one = new One();
	type Pair = [number, number];
	const readings = $derived((bench().value('bow.measured') as Pair[] | undefined) ?? []);
	const true_ = $derived(bench().bench.force_draw?.true_draw_in.value ?? null);
	let draw = $state('');
	let weight = $state('');
	let problem = $state<string | null>(null);
	const refused = $derived(problem ?? bench().problem('bow.measured'));

	let pulling = $state<AbortController | null>(null);
	let share = $state(0);
	let pulls = 0;
	/** What the simulated scale read last: to look at and to log, never kept as measured. */
	let pulled = $state<Pair[]>([]);
	const most = $derived(pulled[pulled.length - 1]);
	let picker = $state<HTMLInputElement>();
	let start = $state<HTMLButtonElement>();
	let letDown = $state<HTMLButtonElement>();

	useDraft(
		'reading of the scale',
		() => ({ draw, weight }),
		(was) => ({ draw, weight } = was)
	);

	/** The readings go on the bench, and into the history with the change when it is kept. */
	function weighed(readings: Pair[], scale: 'typed' | 'file'): void {
		bench().trial = { kind: 'weighing', readings, scale, day: '', notes: '' };
		bench().set('bow.measured', readings);
	}

	/** Each pull has its own noise; the same bow hides behind all of them. */
	async function pull(): Promise<void> {
		problem = null;
		share = 0;
		bench().live = [];
		const mine = (pulling = new AbortController());
		void tick().then(() => refocus(letDown));
		const { id } = bench();
		const onTold = (told: number | null, live: unknown) => {
			share = told ?? share;
			bench().live = [...bench().live, live as Pair];
		};
		try {
			const body = { rig: id, seed: id, again: pulls++, pace: 1 };
			const job = await told(api.POST('/api/jobs/pull', { body }));
			const { readings } = await follow<{ readings: Pair[] }>(job.id, {
				onTold,
				signal: mine.signal
			});
			pulled = readings;
		} catch (error) {
			if (!mine.signal.aborted) problem = (error as ApiProblem).message;
		} finally {
			bench().live = [];
			pulling = null;
			void tick().then(() => refocus(start));
		}
	}

	async function logPull(): Promise<void> {
		const trial = { kind: 'weighing' as const, readings: pulled, scale: 'simulated' as const };
		if (await bench().log('weight', { ...trial, day: '', notes: '' })) pulled = [];
	}

	function stop(): void {
		pulling?.abort();
	}
	onDestroy(stop);

	async function take(event: Event): Promise<void> {
		const input = event.currentTarget as HTMLInputElement;
		const file = input.files?.[0];
		if (!file) return;
		problem = null;
		try {
			const { readings } = await upload<{ readings: Pair[] }>('/api/readings', file);
			weighed(readings, 'file');
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
		input.value = '';
	}

	async function add(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		try {
			const at = draw.trim() === '' && true_ != null ? true_ : await reference.read(draw, 'draw');
			const pulls = await reference.read(weight, 'weight');
			const others = readings.filter(([d]) => Math.abs(d - at) > 1e-6);
			weighed(
				[...others, [at, pulls] as Pair].sort((a, b) => a[0] - b[0]),
				'typed'
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
			data-trial
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
		{#each readings.slice(-6) as [d, f], i (`${d}/${i}`)}
			<button
				type="button"
				class="reading"
				title="Take this reading out"
				onclick={() =>
					bench().set(
						'bow.measured',
						readings.filter(([other]) => other !== d)
					)}
			>
				<Measure value={{ value: f, quantity: 'weight' }} unit={false} /> at <Measure
					value={{ value: d, quantity: 'draw' }}
					unit={false}
				/> ×
			</button>
		{/each}
		{#if readings.length > 6}<span class="quiet">and {readings.length - 6} more</span>{/if}
		<MeasuredBy path="bow.measured" />
	</div>
	<div class="line">
		{#if pulling}
			<progress value={share} aria-label="The pull"></progress>
			<span class="num">{Math.round(share * 100)}%</span>
			<button bind:this={letDown} type="button" class="link" onclick={stop}>Let down</button>
		{:else}
			<button bind:this={start} type="button" class="link" onclick={pull}
				>Try it without a scale</button
			>
			<button type="button" class="link" onclick={() => picker?.click()}>Readings from CSV</button>
			{#if bench().kept.rig.bow.measured?.length}
				<a class="link" href="/api/rigs/{bench().id}/readings" download>Readings as CSV</a>
			{/if}
			{#if readings.length > 0}
				<button type="button" class="link" onclick={() => bench().set('bow.measured', [])}
					>Clear all {readings.length}</button
				>
			{/if}
		{/if}
		<input
			bind:this={picker}
			type="file"
			accept=".csv,text/csv"
			aria-label="CSV file of readings"
			onchange={take}
			hidden
		/>
	</div>
	{#if most}
		<p aria-live="polite">
			<strong>Simulated:</strong> a pull of a made-up bow behind your marking reads <Measure
				value={{ value: most[1], quantity: 'weight' }}
			/> at <Measure value={{ value: most[0], quantity: 'draw' }} />. It shows what a scale does and
			never counts as measured.
			<button type="button" class="link" disabled={bench().busy} onclick={one.on(logPull)}
				>Log the pull</button
			>
			<button type="button" class="link" onclick={() => (pulled = [])}>Clear it</button>
		</p>
	{/if}
	<p class="quiet" class:wrong={refused} aria-live="polite">
		{refused ??
			'Hook the scale on the string, pull to the mark and read. The curve then passes through your readings.'}
	</p>
</form>
