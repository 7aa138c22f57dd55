<script lang="ts">
	import { api, ApiProblem, told, type Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { inOrder } from '$lib/bench/inOrder';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import MeasuringPlate from '$lib/plates/MeasuringPlate.svelte';

	/** Several readings by one method, and the draw length they come to. */
	const bench = useBench();
	type Method = 'marked_arrow' | 'tape' | 'arm_span';
	let method = $state<Method>('marked_arrow');
	let convention = $state<'trade' | 'pivot' | 'back'>('trade');
	let typed = $state('');
	let readings = $state<number[]>([]);
	let came = $state<Schemas['DrawLengthOut'] | null>(null);
	let problem = $state<string | null>(null);
	const hints: Record<Method, string> = {
		marked_arrow: 'Draw a marked arrow and read the mark, five times over.',
		tape: 'Bow arm out: fingertip to the shoulder. A first guess.',
		arm_span: 'Arms out, fingertip to fingertip, divided by 2.5. A first guess.'
	};

	// What is pressed while a reading is on its way follows it.
	const each = inOrder();
	const draft = useDraft(
		'readings of the draw',
		() => ({ method, convention, typed, readings }),
		(was) => {
			({ method, convention, typed, readings } = was);
			void again();
		}
	);

	/** A reading is taken from its field at once: the next may be typed meanwhile. */
	function add(event: Event): Promise<void> {
		event.preventDefault();
		problem = null;
		const was = typed;
		typed = '';
		return each(async () => {
			try {
				await compute([...readings, await reference.read(was, 'draw')]);
			} catch (error) {
				if (!typed) typed = was;
				problem = (error as ApiProblem).message;
			}
		});
	}

	async function compute(next: number[]): Promise<void> {
		if (next.length === 0) {
			readings = [];
			came = null;
			return;
		}
		const archer = bench().bench.rig.archer;
		const body = {
			method,
			readings_in: next,
			convention,
			release: archer.release!,
			thumb_offset_mm: archer.thumb_offset_mm,
			bow: bench().bench.rig.bow
		};
		came = await told(api.POST('/api/compute/draw-length', { body }));
		readings = next;
	}

	/** Computed anew, by another way or without one of the readings; what cannot be is not taken. */
	function again(without?: number): Promise<void> {
		const shown = readings;
		return each(async () => {
			if (shown.some((reading, j) => reading !== readings[j])) return; // pressed twice
			problem = null;
			try {
				await compute(readings.filter((_, j) => j !== without));
			} catch (error) {
				came = null;
				problem = (error as ApiProblem).message;
			}
		});
	}

	async function take(): Promise<void> {
		if (!came) return;
		bench().trial = {
			kind: 'draw',
			method,
			convention: method === 'arm_span' ? 'trade' : convention,
			readings_in: $state.snapshot(readings),
			draw_length_in: came.draw_length_in.value,
			plus_minus_in: came.draw_length_in.plus_minus,
			day: '',
			notes: ''
		};
		bench().setAll({
			'archer.draw_length_in': Math.round(came.draw_length_in.value * 1000) / 1000,
			'archer.draw_method': method,
			'archer.draw_plus_minus_in': Math.round(came.draw_length_in.plus_minus * 1000) / 1000
		});
		draft.settle();
	}
</script>

<MeasuringPlate
	{method}
	{convention}
	reading={readings[readings.length - 1] ?? null}
	comes={readings.length === 1 ? (came?.draw_length_in.value ?? null) : null}
/>
<form class="readings" onsubmit={add}>
	<div class="line">
		<strong>Readings</strong>
		<label
			><span class="sr-only">Method</span>
			<select bind:value={method} onchange={() => again()}>
				<option value="marked_arrow">marked arrow</option>
				<option value="tape">tape</option>
				<option value="arm_span">arm span</option>
			</select>
		</label>
		{#if method !== 'arm_span'}
			<label
				><span class="sr-only">Read to</span>
				<select bind:value={convention} onchange={() => again()}>
					<option value="trade">trade standard</option>
					<option value="pivot">to the pivot</option>
					<option value="back">to the back</option>
				</select>
			</label>
		{/if}
		<input
			class="line-input num"
			bind:value={typed}
			placeholder="28 3/4"
			aria-label="A reading"
			data-trial
		/>
		<button class="act plain" disabled={!typed.trim()}>Add</button>
		<span class="list">
			{#each readings as reading, i (i)}
				<button
					type="button"
					class="reading"
					title="Take this reading out"
					onclick={() => again(i)}
				>
					<Measure value={{ value: reading, quantity: 'draw' }} unit={false} /> ×
				</button>
			{/each}
		</span>
		{#if came}
			<span
				>= <strong><Measure value={{ ...came.draw_length_in, quantity: 'draw' }} /></strong></span
			>
			<button type="button" class="link" onclick={() => each(take)}>Take it</button>
		{/if}
	</div>
	<p class="quiet" class:wrong={problem} aria-live="polite">{problem ?? hints[method]}</p>
</form>
