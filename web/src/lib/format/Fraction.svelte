<script lang="ts">
	/** A fraction set as one: small figures above and below a slanted line. */
	let { text }: { text: string } = $props();
	const parts = $derived(text.split('/'));
</script>

<span class="frac"
	><span class="top">{parts[0]}</span><span class="slash">/</span><span class="bottom"
		>{parts[1]}</span
	></span
>

<style>
	.frac {
		margin-left: 0.06em;
		white-space: nowrap;
	}
	.top,
	.bottom {
		font-size: 0.66em;
		position: relative;
	}
	.top {
		top: -0.5em;
	}
	.bottom {
		top: 0.06em;
	}
	.slash {
		margin: 0 -0.09em;
		font-weight: 400;
	}
</style>
