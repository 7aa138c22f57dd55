<script lang="ts">
	import { page } from '$app/state';

	const lost = $derived(page.status === 404);
</script>

<main role="alert">
	<h1>{lost ? 'There is nothing here' : 'This page did not come'}</h1>
	<p>{page.error?.message}{lost ? '.' : ''}</p>
	<p class="ways">
		{#if !lost}<button class="act" onclick={() => location.reload()}>Try again</button>{/if}
		<a class="link" href="/">All rigs</a>
		{#if !lost}<a class="link" href="/range">Rigs at the range</a>{/if}
	</p>
</main>

<style>
	main {
		max-width: 34rem;
		margin: 20vh auto;
		padding: 0 1rem;
	}
	.ways {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem 1.4rem;
		align-items: center;
		margin-top: 0.8rem;
	}
</style>
