<script lang="ts">
	/** A stop on the route: hollow, half, full or notched; the word always stands beside it. */
	let { state }: { state: 'open' | 'provisional' | 'settled' | 'due' } = $props();
</script>

<svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
	{#if state === 'due'}
		<path
			d="M8 1.2 14.8 8 8 14.8 1.2 8Z"
			fill="var(--paper)"
			stroke="var(--brick)"
			stroke-width="1.6"
		/>
		<path d="M8 4.6v4M8 10.6v1" stroke="var(--brick)" stroke-width="1.6" />
	{:else}
		<circle
			cx="8"
			cy="8"
			r="6"
			fill={state === 'settled' ? 'var(--moss)' : 'var(--paper)'}
			stroke={state === 'open'
				? 'var(--quiet)'
				: state === 'settled'
					? 'var(--moss)'
					: 'var(--ochre)'}
			stroke-width="1.6"
		/>
		{#if state === 'provisional'}<path d="M8 2a6 6 0 0 0 0 12Z" fill="var(--ochre)" />{/if}
		{#if state === 'settled'}<path
				d="m5 8.2 2.1 2.1L11 6"
				fill="none"
				stroke="var(--paper)"
				stroke-width="1.6"
			/>{/if}
	{/if}
</svg>
