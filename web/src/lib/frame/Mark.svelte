<script lang="ts">
	/** The mark: a bow at brace in heather and ink, an arrow through it. */
</script>

<svg viewBox="0 0 32 32" width="30" height="30" aria-hidden="true">
	<path
		d="M11 3c-1 3 4 5 6 13-2 8-7 10-6 13"
		fill="none"
		stroke="var(--ink)"
		stroke-width="2.4"
		stroke-linecap="round"
	/>
	<path d="M11 3 8 16l3 13" fill="none" stroke="var(--heather)" stroke-width="1.4" />
	<path
		d="M5 16h22m-4-3 4 3-4 3"
		fill="none"
		stroke="var(--ink)"
		stroke-width="1.7"
		stroke-linecap="round"
		stroke-linejoin="round"
	/>
</svg>
