<script lang="ts">
	import TillerPage from '$lib/stations/TillerPage.svelte';
</script>

<TillerPage id="final-tiller" />
