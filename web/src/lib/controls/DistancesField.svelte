<script lang="ts">
	import type { ApiProblem } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { deeds } from '$lib/frame/window.svelte';

	/** The chart's distances, typed one after another: "10 20 30", "18 yd, 25 yd", "10,20,30". */
	const bench = useBench();
	const id = $props.id();
	const path = 'aim.distances_m';
	const values = $derived(bench().value(path) as number[]);
	let typed = $state<string | null>(null);
	let problem = $state<string | null>(null);
	const refused = $derived(problem ?? bench().problem(path));
	const canonical = $derived(
		values.map((v) => Number(reference.inShown(v, 'distance').toFixed(1))).join(' ')
	);

	async function read(text: string): Promise<void> {
		typed = text;
		problem = null;
		try {
			const values = await reference.readAll(text, 'distance');
			const sorted = [...new Set(values)].sort((a, b) => a - b);
			if (typed === text) bench().set(path, sorted);
		} catch (error) {
			if (typed === text) problem = (error as ApiProblem).message;
		}
	}

	function key(event: KeyboardEvent): void {
		if (event.key === 'Escape' && problem !== null) {
			event.preventDefault();
			typed = problem = null;
		} else if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
			event.preventDefault();
			deeds.page?.keep?.();
		}
	}

	$effect(() => {
		void bench().turns;
		typed = null;
		problem = null;
	});
</script>

<div class="wide">
	<label for={id}>Distances, {reference.unit('distance').label}</label>
	<input
		{id}
		class="line-input num"
		value={typed ?? canonical}
		oninput={(e) => read(e.currentTarget.value)}
		onkeydown={key}
		onblur={() => !refused && (typed = null)}
		aria-invalid={!!refused}
		aria-describedby="{id}-note"
		autocomplete="off"
		spellcheck="false"
	/>
	<p id="{id}-note" aria-live="polite">{refused ?? ''}</p>
</div>

<style>
	label {
		display: block;
		color: var(--quiet);
		font-size: 0.82rem;
	}
	p {
		color: var(--brick);
		font-size: 0.76rem;
		min-height: 1.2em;
	}
</style>
