<script lang="ts">
	import { goto } from '$app/navigation';
	import SideBySide from '$lib/beside/SideBySide.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import Mark from '$lib/frame/Mark.svelte';

	/** A part beside another of its kind. */
	let { data } = $props();
	const to = (other: string): void =>
		void goto(`/rack/beside?mine=${data.mine?.mark}&other=${other}`, {
			replaceState: true,
			keepFocus: true,
			noScroll: true
		});
</script>

<svelte:head><title>Side by side · Rack · Lyrandis</title></svelte:head>

<main id="main" tabindex="-1">
	<p class="up">
		<a class="brand" href="/"><Mark />Lyrandis</a>
		<a class="link" href="/rack">Rack</a>
		{#if data.mine}<a class="link" href="/rack/{data.mine.mark}">{data.mine.name}</a>{/if}
	</p>
	<h1>What is different?</h1>
	{#if data.view && data.mine && data.other}
		<p class="answer">
			<SaidText said={data.view.told.said} strong />
			{#if data.view.mine.on}Looked at on {data.view.mine.on}.{/if}
		</p>
		<p class="asked">
			<label for="beside">{data.mine.name} beside</label>
			<select
				class="choose"
				id="beside"
				value={data.other.mark}
				onchange={(e) => to(e.currentTarget.value)}
			>
				{#each data.alike as one (one.mark)}<option value={one.mark}>{one.name}</option>{/each}
			</select>
		</p>
		<SideBySide view={data.view} here={data.mine.name} there={data.other.name} />
	{:else if data.mine}
		<p class="answer">There is no other part of this kind on the rack.</p>
	{:else}
		<p class="answer">Choose a part on the <a class="link" href="/rack">rack</a> first.</p>
	{/if}
</main>

<style>
	main {
		max-width: 74rem;
		margin: 0 auto;
		padding: 1.4rem 1.5rem 3rem;
		height: 100%;
		overflow-y: auto;
	}
	.up {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.6rem;
		align-items: center;
	}
	h1 {
		font-size: 1.9rem;
		margin-top: 0.6rem;
	}
	.answer {
		font-size: 1.1rem;
	}
	.asked {
		display: grid;
		width: max-content;
		max-width: 100%;
		margin: 0.7rem 0 1rem;
	}
	.asked label {
		color: var(--quiet);
		font-size: 0.82rem;
		line-height: 24px;
	}
	@media (max-width: 560px) {
		main {
			padding: 0.8rem 1rem 3rem;
		}
		h1 {
			font-size: 1.5rem;
		}
	}
</style>
