<script lang="ts">
	import { useBench } from '$lib/bench/bench.svelte';
	import Station from '$lib/frame/Station.svelte';
	import AssemblyPlate from '$lib/plates/AssemblyPlate.svelte';

	const bench = useBench();
	const steps = $derived(bench().bench.assembly ?? []);
	const done = $derived(bench().value('assembly.done') as string[]);

	const takedown = $derived(bench().kept.rig.bow.takedown);

	/** Kept in working order, so that the same steps are the same list. */
	function tick(id: string, ready: boolean): void {
		const ids = steps.map((s) => s.id);
		bench().set(
			'assembly.done',
			ids.filter((other) => (other === id ? ready : done.includes(other)))
		);
	}
</script>

<Station
	id="assembly"
	leaves={[
		{ id: 'another', title: takedown ? 'Other limbs or riser' : 'Another bow', body: another }
	]}
>
	{#snippet plate()}<AssemblyPlate {done} />{/snippet}
	{#snippet controls()}
		<ol class="whole">
			{#each steps as step (step.id)}
				<li class:done={done.includes(step.id)}>
					<label>
						<input
							type="checkbox"
							checked={done.includes(step.id)}
							onchange={(e) => tick(step.id, e.currentTarget.checked)}
						/>
						<span>{step.text}</span>
						<span class="tool">{step.tool ?? ''}</span>
					</label>
				</li>
			{/each}
		</ol>
		<p class="whole">
			<button
				class="link"
				onclick={() =>
					bench().set(
						'assembly.done',
						steps.map((s) => s.id)
					)}>All done</button
			>
			<button class="link" onclick={() => bench().set('assembly.done', [])}>Begin again</button>
		</p>
	{/snippet}
</Station>

{#snippet another()}
	{#await import('$lib/rack/PutOn.svelte') then { default: PutOn }}<PutOn
			slots={takedown ? ['upper_limb', 'lower_limb', 'riser'] : ['bow']}
		/>{/await}
{/snippet}

<style>
	ol {
		list-style: decimal;
		padding-left: 1.6rem;
	}
	li {
		border-bottom: 1px solid var(--hair);
		padding: 0.25rem 0;
	}
	li::marker {
		color: var(--quiet);
	}
	label {
		display: grid;
		grid-template-columns: 1.1rem 1fr auto;
		gap: 0.7rem;
		align-items: baseline;
		cursor: pointer;
	}
	input {
		accent-color: var(--moss);
		width: 1rem;
		height: 1rem;
	}
	.done span {
		color: var(--quiet);
	}
	.tool {
		color: var(--heather);
		font-size: 0.85rem;
	}
	p {
		display: flex;
		gap: 1.2rem;
	}
</style>
