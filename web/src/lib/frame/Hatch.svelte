<script lang="ts">
	/** The one hatch for wood, for every drawing of the page. */
	const id = 'wood';
</script>

<svg width="0" height="0" aria-hidden="true">
	<pattern {id} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(28)">
		<path d="M0 0V5" stroke="var(--wood)" stroke-width="2.2" />
	</pattern>
</svg>

<style>
	svg {
		position: absolute;
	}
</style>
