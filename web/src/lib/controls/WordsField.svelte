<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';

	/** Words one after another, between commas: a list of them is kept. */
	let { path }: { path: string } = $props();
	const bench = useBench();
	const id = $props.id();
	const note = $derived(reference.catalog?.fields[path]);
	const values = $derived((bench().value(path) as string[] | null) ?? []);
	let typed = $state<string | null>(null);
	const refused = $derived(bench().problem(path));

	function read(text: string): void {
		typed = text;
		const words = text.split(',').map((w) => w.trim());
		while (words.length && !words.at(-1)) words.pop();
		bench().set(path, words);
	}
	$effect(() => {
		void bench().turns;
		typed = null;
	});
</script>

<div class="wide">
	<label for={id}>{note?.title}</label>
	<input
		{id}
		class="line-input"
		value={typed ?? values.join(', ')}
		placeholder="first, blue, seam"
		oninput={(e) => read(e.currentTarget.value)}
		onblur={() => !refused && (typed = null)}
		aria-invalid={!!refused}
		aria-describedby="{id}-note"
		autocomplete="off"
	/>
	<p id="{id}-note" class:wrong={refused} aria-live="polite">{refused ?? note?.help}</p>
</div>

<style>
	label {
		display: block;
		color: var(--quiet);
		font-size: 0.82rem;
	}
	.line-input {
		width: 100%;
	}
	p {
		color: var(--quiet);
		font-size: 0.76rem;
		min-height: 1.2em;
	}
	.wrong {
		color: var(--brick);
	}
</style>
