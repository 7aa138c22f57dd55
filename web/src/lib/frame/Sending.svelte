<script lang="ts">
	/** How far a file has gone, and a way to stop it. */
	let { share, reading, onStop }: { share: number; reading: string; onStop: () => void } = $props();
	const percent = $derived(Math.round(share * 100));
</script>

<p class="sending" role="status">
	<progress max="1" value={share < 1 ? share : undefined} aria-label="How far the file has gone"
	></progress>
	<span>{share < 1 ? `${percent} % sent` : reading}</span>
	<button type="button" class="link" onclick={onStop}>Stop</button>
</p>

<style>
	.sending {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem 1rem;
		align-items: center;
		margin: 0.6rem 0;
	}
	progress {
		accent-color: var(--heather);
		width: 12rem;
		max-width: 100%;
	}
</style>
