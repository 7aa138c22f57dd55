<script module lang="ts">
	const LEVEL = { stop: 'Stop', mind: 'Mind', fine: 'Fine' };
	const WHOSE = {
		model: 'by the bow model',
		practice: 'from practice',
		rule: 'a rule of thumb',
		maker: "the maker's word",
		measured: 'measured'
	};
</script>

<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Finding } from '$lib/api/client';
	import SaidText from '$lib/format/SaidText.svelte';
	import Glyph from './Glyph.svelte';

	/** One finding: how serious, what, why, and what cures it. */
	let { finding, children }: { finding: Finding; children?: Snippet } = $props();
</script>

<section class={finding.level}>
	<Glyph level={finding.level} />
	<div>
		<p><span class="word">{LEVEL[finding.level]}.</span> <SaidText said={finding.said} /></p>
		<div class="more">
			<details>
				<summary class="link">Why</summary>
				<p><SaidText said={finding.why} /> <em>({WHOSE[finding.told]})</em></p>
			</details>
			{@render children?.()}
		</div>
	</div>
</section>

<style>
	section {
		display: grid;
		grid-template-columns: 18px 1fr;
		gap: 0.65rem;
		padding: var(--finding-room, 0.7rem) 0;
		border-bottom: 1px solid var(--hair);
		font-size: 0.93rem;
	}
	section :global(svg) {
		margin-top: 0.12rem;
	}
	.word {
		font-weight: 700;
	}
	.stop .word {
		color: var(--brick);
	}
	.mind .word {
		color: var(--ochre);
	}
	.fine .word {
		color: var(--moss);
	}
	.more {
		display: flex;
		flex-wrap: wrap;
		gap: 0.15rem 1rem;
		margin-top: 0.2rem;
		font-size: 0.88rem;
	}
	details {
		max-width: 100%;
	}
	details[open] {
		flex-basis: 100%;
	}
	details p {
		color: var(--quiet);
		margin: 0.25rem 0 0.2rem;
		line-height: 1.35;
	}
	summary {
		list-style: none;
		display: inline-flex;
		align-items: center;
	}
	summary::-webkit-details-marker {
		display: none;
	}
</style>
