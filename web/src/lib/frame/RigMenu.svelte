<script lang="ts">
	import { Menu, Portal } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';
	import { goto } from '$app/navigation';
	import { api, told, type Schemas } from '$lib/api/client';

	/** The list of rigs to go to; it comes with its first opening, and open. */
	let { id, here, children }: { id: number; here: string | undefined; children: Snippet } =
		$props();
	let rigs = $state<Schemas['RigNote'][]>([]);

	async function list(): Promise<void> {
		rigs = (await told(api.GET('/api/rigs'))).filter((r) => !r.archived);
	}
	void list();
</script>

<Menu defaultOpen onOpenChange={(e) => e.open && list()} onSelect={(e) => goto(e.value)}>
	<Menu.Trigger class="switcher">{@render children()}</Menu.Trigger>
	<Portal>
		<Menu.Positioner>
			<Menu.Content class="rig-menu">
				{#each rigs as other (other.id)}
					<Menu.Item value="/rig/{other.id}/{here ?? 'draw'}">
						<Menu.ItemText
							>{other.name}{other.id === id ? ' (here)' : ''}{other.due
								? `, ${other.due} to recheck`
								: ''}</Menu.ItemText
						>
					</Menu.Item>
				{/each}
				<Menu.Separator />
				<Menu.Item value="/new"><Menu.ItemText>New rig</Menu.ItemText></Menu.Item>
				<Menu.Item value="/rack"><Menu.ItemText>Rack</Menu.ItemText></Menu.Item>
				<Menu.Item value="/"><Menu.ItemText>All rigs</Menu.ItemText></Menu.Item>
			</Menu.Content>
		</Menu.Positioner>
	</Portal>
</Menu>
