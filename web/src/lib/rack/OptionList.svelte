<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import SaidText from '$lib/format/SaidText.svelte';
	import FindingFold from '$lib/frame/FindingFold.svelte';
	import Glyph from '$lib/frame/Glyph.svelte';
	import { VERDICT } from './verdict';

	/** The strings or sets there are for a bow, the best first; one of them is chosen, or none. */
	interface Props {
		title: string;
		options: Schemas['Option'][];
		chosen: string;
	}
	let { title, options, chosen = $bindable() }: Props = $props();
	const id = $props.id();
	const MOST = 4;
	let all = $state(false);
	const shown = $derived(
		all ? options : options.filter((o, i) => i < MOST || o.part.mark === chosen)
	);
	const taken = $derived(options.find((o) => o.part.mark === chosen));
</script>

{#if options.length}
	<fieldset>
		<legend>{title}</legend>
		{#each shown as option (option.part.mark)}
			<label class="option">
				<input type="radio" name={id} value={option.part.mark} bind:group={chosen} />
				<span class="what">
					<span class="name">{option.part.name}</span>
					<span class="quiet"
						><SaidText said={option.told} />{#if option.part.where}; <SaidText
								said={option.part.where}
							/>{/if}</span
					>
				</span>
				<Glyph level={option.level} />
				<span class="sr-only">{VERDICT[option.level]}</span>
			</label>
		{/each}
		<label class="option">
			<input type="radio" name={id} value="" bind:group={chosen} />
			<span class="what"><span class="quiet">none of these</span></span>
		</label>
		{#if options.length > shown.length}
			<button type="button" class="link" onclick={() => (all = true)}
				>and {options.length - shown.length} more</button
			>
		{/if}
	</fieldset>
	{#if taken}
		<div class="told">
			<FindingFold findings={taken.findings} />
		</div>
	{/if}
{/if}

<style>
	fieldset {
		border: 0;
		padding: 0;
		margin: 0.9rem 0 0;
	}
	legend {
		width: 100%;
		font-family: var(--slab);
		font-size: 1.05rem;
		font-weight: 600;
		border-bottom: 1px solid var(--line);
		padding: 0;
	}
	label.option {
		display: grid;
		width: 100%;
		grid-template-columns: auto 1fr auto;
		gap: 0.6rem;
		align-items: center;
		min-height: var(--target);
		padding: 0.25rem 0;
		border-bottom: 1px solid var(--hair);
		font-size: 0.92rem;
		line-height: 1.3;
	}
	.name {
		display: block;
		font-weight: 600;
	}
	.told {
		--finding-room: 0.4rem;
		padding-left: 0.4rem;
	}
</style>
