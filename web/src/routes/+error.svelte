<script lang="ts">
	import { page } from '$app/state';
</script>

<main>
	<h1>There is nothing here</h1>
	<p>{page.error?.message}. <a class="link" href="/">All rigs</a></p>
</main>

<style>
	main {
		max-width: 34rem;
		margin: 20vh auto;
	}
</style>
