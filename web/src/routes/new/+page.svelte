<script lang="ts">
	import { tick } from 'svelte';
	import { goto } from '$app/navigation';
	import { api, ApiProblem, told } from '$lib/api/client';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import Drafts from '$lib/drafts/Drafts.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import MeasureInput from '$lib/controls/MeasureInput.svelte';
	import Mark from '$lib/frame/Mark.svelte';

	/** The least that a rig needs: whose draw, which kind of bow, its length and weight. */
	const catalog = reference.catalog!;
	const fresh = catalog.fresh_rig;
	let name = $state('');
	let archer = $state('');
	let draw = $state<number | null>(fresh.archer.draw_length_in);
	let hand = $state<'right' | 'left'>('right');
	let release = $state<'split' | 'three_under' | 'thumb'>('three_under');
	let form = $state<'recurve' | 'hybrid' | 'longbow' | 'static_tip'>('recurve');
	let length = $state<number | null>(catalog.forms.recurve!.length_in);
	let weight = $state<number | null>(fresh.bow.marked_weight_lbf);
	const draft = useDraft(
		'new rig',
		() => ({ name, archer, draw, hand, release, form, length, weight }),
		(was) => ({ name, archer, draw, hand, release, form, length, weight } = was),
		'new'
	);
	let problems = $state<Record<string, string>>({});
	let fault = $state<string | null>(null);
	let sheet = $state<HTMLFormElement>();
	const kinds = {
		recurve: 'tips curve forward; one piece or takedown',
		hybrid: 'gentle reflex and deflex, slim tips',
		longbow: 'straight or nearly so',
		static_tip: 'stiff levers at the tips, often thumb-drawn'
	};

	/** Another kind begins at its own usual length and release, unless those were set by hand. */
	function choose(id: typeof form): void {
		const was = catalog.forms[form]!;
		const now = catalog.forms[id]!;
		form = id;
		if (length === was.length_in) length = now.length_in;
		if (release === was.release) release = now.release as typeof release;
	}

	const one = new One();
	async function create(): Promise<void> {
		problems = {};
		fault = null;
		await reference.settled();
		await tick();
		// What could not be read is not passed over: the rig waits for it.
		const unread = sheet?.querySelector<HTMLInputElement>('[aria-invalid="true"]');
		if (unread) {
			fault = 'A measurement above could not be read. Mend it, then set it up.';
			unread.focus();
			return;
		}
		const body = {
			form,
			length_in: length ?? 0,
			marked_weight_lbf: weight ?? 0,
			draw_length_in: draw ?? 0,
			hand,
			release,
			name:
				name.trim() || `${catalog.forms[form]!.title} ${reference.text(length ?? 0, 'bow_length')}`,
			archer
		};
		try {
			const made = await told(api.POST('/api/rigs/first', { body }));
			draft.settle();
			await goto(`/rig/${made.id}/draw`);
		} catch (error) {
			const problem = error as ApiProblem;
			problems = Object.fromEntries(problem.errors.map((e) => [e.field, e.reason]));
			fault = problem.message;
		}
	}
</script>

<svelte:head><title>New rig · Lyrandis</title></svelte:head>

<main id="main" tabindex="-1">
	<a class="brand" href="/"><Mark />Lyrandis</a>
	<h1>What have you got?</h1>
	<p class="quiet">Guesses will do. Every number can be measured and changed later.</p>
	<Drafts />
	<form bind:this={sheet} onsubmit={one.on(create)}>
		<fieldset>
			<legend>The bow</legend>
			<div class="kinds">
				{#each Object.entries(kinds) as [id, text] (id)}
					<label class:on={form === id}>
						<input
							type="radio"
							name="form"
							value={id}
							checked={form === id}
							onchange={() => choose(id as typeof form)}
						/>
						<strong>{catalog.forms[id]?.title}</strong>
						<span class="quiet">{text}</span>
					</label>
				{/each}
			</div>
			<div class="row">
				<MeasureInput
					note={catalog.fields['bow.length_in']!}
					value={length}
					problem={problems['bow.length_in']}
					onvalue={(v) => (length = v)}
				/>
				<MeasureInput
					note={catalog.fields['bow.marked_weight_lbf']!}
					value={weight}
					low={15}
					high={80}
					problem={problems['bow.marked_weight_lbf']}
					onvalue={(v) => (weight = v)}
				/>
			</div>
		</fieldset>
		<fieldset>
			<legend>The archer</legend>
			<div class="row">
				<MeasureInput
					note={catalog.fields['archer.draw_length_in']!}
					value={draw}
					problem={problems['archer.draw_length_in']}
					onvalue={(v) => (draw = v)}
				/>
				<label class="plain"
					>Draws with <select bind:value={hand}
						><option value="right">the right hand</option><option value="left">the left hand</option
						></select
					></label
				>
				<label class="plain"
					>Release <select bind:value={release}
						><option value="three_under">three fingers under</option><option value="split"
							>split finger</option
						><option value="thumb">thumb</option></select
					></label
				>
			</div>
		</fieldset>
		<fieldset>
			<legend>Names (may stay empty)</legend>
			<div class="row">
				<label class="plain"
					>Rig <input class="line-input" bind:value={name} maxlength="80" /></label
				>
				<label class="plain"
					>Archer <input class="line-input" bind:value={archer} maxlength="200" /></label
				>
			</div>
		</fieldset>
		{#if fault}<p class="fault" role="alert">{fault}</p>{/if}
		<p class="buttons">
			<button class="act" aria-busy={one.busy} disabled={one.busy}>Set it up</button>
			<a class="link" href="/">Back</a>
		</p>
	</form>
</main>

<style>
	main {
		max-width: 50rem;
		margin: 0 auto;
		padding: 2rem 1.5rem;
	}
	.brand {
		margin-bottom: 1.6rem;
	}
	h1 {
		font-size: 2.05rem;
	}
	fieldset {
		border: 0;
		border-top: 1px solid var(--line);
		padding: 0.9rem 0 0.4rem;
		margin: 1rem 0 0;
	}
	legend {
		font-weight: 600;
		padding-right: 0.8rem;
	}
	.kinds {
		display: grid;
		grid-template-columns: repeat(4, 1fr);
		gap: 1rem;
		margin-bottom: 1rem;
	}
	.kinds label {
		cursor: pointer;
		border-bottom: 2px solid var(--hair);
		padding-bottom: 0.5rem;
		display: block;
		font-size: 0.92rem;
		line-height: 1.3;
	}
	.kinds label.on {
		border-bottom-color: var(--heather);
	}
	.kinds label:has(:focus-visible) {
		outline: 2px solid var(--heather);
		outline-offset: 4px;
	}
	.kinds input {
		position: absolute;
		opacity: 0;
	}
	.kinds span {
		display: block;
	}
	.row {
		display: grid;
		grid-template-columns: repeat(3, 1fr);
		gap: 0.5rem 2rem;
	}
	.plain {
		color: var(--quiet);
		font-size: 0.82rem;
	}
	.plain select,
	.plain input {
		display: block;
		width: 100%;
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--line);
		color: var(--ink);
		font-size: 1.05rem;
		padding: 0.25rem 0;
	}
	option {
		background: var(--raised);
	}
	.fault {
		color: var(--brick);
	}
	.buttons {
		display: flex;
		gap: 1.4rem;
		align-items: center;
		margin-top: 1.2rem;
	}
	@media (max-width: 700px) {
		.kinds,
		.row {
			grid-template-columns: 1fr 1fr;
		}
	}
</style>
