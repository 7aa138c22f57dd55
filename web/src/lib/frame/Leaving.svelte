<script lang="ts">
	import Sheet from './Sheet.svelte';

	/** Asks what becomes of changes not kept when the page is left. */
	let { onkeep, ondrop, onstay }: Record<'onkeep' | 'ondrop' | 'onstay', () => void> = $props();
</script>

<Sheet bind:open={() => true, (open) => open || onstay()} title="Changes not kept">
	<p>You changed something here and did not keep it.</p>
	<p class="buttons">
		<button class="act" onclick={onkeep}>Keep and go on</button>
		<button class="act plain" onclick={ondrop}>Throw away and go on</button>
		<button class="act plain" onclick={onstay}>Stay</button>
	</p>
</Sheet>
