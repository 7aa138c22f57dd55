<script lang="ts">
	import { page } from '$app/state';

	const lost = $derived(page.status === 404);
</script>

<main role="alert">
	<h1>{lost ? 'There is nothing here' : 'This page did not come'}</h1>
	<p>{page.error?.message}{lost ? '.' : ''} <a class="link" href="/">All rigs</a></p>
	{#if !lost}<button class="act" onclick={() => location.reload()}>Try again</button>{/if}
</main>

<style>
	main {
		max-width: 34rem;
		margin: 20vh auto;
	}
</style>
