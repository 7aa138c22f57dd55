<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';

	void goto(`/rig/${page.params.id}/draw`, { replaceState: true });
</script>
