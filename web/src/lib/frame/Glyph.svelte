<script lang="ts">
	/** How serious something is, as a shape; the word stands beside it. */
	let { level }: { level: 'stop' | 'mind' | 'fine' | 'due' } = $props();
</script>

<svg viewBox="0 0 18 18" width="18" height="18" aria-hidden="true">
	{#if level === 'stop'}
		<path d="M5.5 1.5h7l4 4v7l-4 4h-7l-4-4v-7Z" fill="var(--brick)" />
		<path d="M5 9h8" stroke="var(--paper)" stroke-width="2.2" />
	{:else if level === 'due'}
		<path d="M9 1.5 16.5 9 9 16.5 1.5 9Z" fill="none" stroke="var(--brick)" stroke-width="1.6" />
		<path d="M9 5v5M9 12v1.2" stroke="var(--brick)" stroke-width="1.6" />
	{:else if level === 'mind'}
		<circle cx="9" cy="9" r="7" fill="none" stroke="var(--ochre)" stroke-width="1.5" />
		<path d="M9 4.8v5.4M9 12v1.4" stroke="var(--ochre)" stroke-width="1.7" />
	{:else}
		<path d="m3 9.5 4 4L15 5" fill="none" stroke="var(--moss)" stroke-width="1.8" />
	{/if}
</svg>
