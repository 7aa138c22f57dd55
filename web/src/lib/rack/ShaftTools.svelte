<script lang="ts">
	import { api, told, type Schemas } from '$lib/api/client';
	import { upload } from '$lib/api/upload';
	import Simulated from '$lib/controls/Simulated.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import MatchedSet from './MatchedSet.svelte';

	/** Shafts from a file or pasted lines, out again, labels; and how it is done with scale and jig. */
	type Shaft = Schemas['Shaft'];
	interface Props {
		mark: string;
		/** What the set is made of. */
		body: Record<string, unknown>;
		shafts: Shaft[];
		/** Whether they are kept as they stand. */
		kept: boolean;
		onset: (shafts: Shaft[]) => void;
	}
	let { mark, body, shafts, kept, onset }: Props = $props();
	let picker = $state<HTMLInputElement>();
	let pasting = $state(false);
	let pasted = $state('');
	useDraft(
		'pasted shafts',
		() => ({ pasting, pasted }),
		(was) => ({ pasting, pasted } = was),
		'rack'
	);
	let fault = $state<string | null>(null);
	let sheet = $state<Schemas['SheetNote']['id']>('a4_24');
	let skip = $state('0');
	let sheets = $state.raw<Schemas['SheetNote'][]>([]);
	let labelling = $state(false);
	let simulated = $state.raw<Shaft[]>([]);
	const first = $derived(Math.max(0, ...shafts.map((s) => s.number)) + 1);

	async function take(file: File): Promise<void> {
		fault = null;
		try {
			const read = await upload<{ shafts: Shaft[] }>(`/api/shafts?first=${first}`, file);
			const added = read.shafts.map((one) => {
				const was = shafts.find((s) => s.number === one.number);
				return {
					...(was ?? one),
					mass_gr: one.mass_gr ?? was?.mass_gr ?? null,
					static_spine: one.static_spine ?? was?.static_spine ?? null,
					runout_mm: one.runout_mm ?? was?.runout_mm ?? null
				};
			});
			const others = shafts.filter((s) => !added.some((one) => one.number === s.number));
			onset([...others, ...added].sort((a, b) => a.number - b.number));
			pasting = false;
			pasted = '';
		} catch (error) {
			fault = (error as Error).message;
		}
	}
	async function chosen(event: Event): Promise<void> {
		const input = event.currentTarget as HTMLInputElement;
		if (input.files?.[0]) await take(input.files[0]);
		input.value = '';
	}
	async function label(): Promise<void> {
		labelling = !labelling;
		if (!sheets.length) sheets = await told(api.GET('/api/labels'));
	}
	const measure = async (again: number) => {
		const arrow = Object.fromEntries(
			Object.entries(body).filter(([name]) => name !== 'kind' && name !== 'shafts')
		);
		const made = { arrow: arrow as never, shafts: 12, seed: 7, again, pace: 1 };
		return told(api.POST('/api/jobs/shafts', { body: made }));
	};
</script>

<p class="line">
	<button class="link" onclick={() => (pasting = !pasting)}>Paste lines</button>
	<button class="link" onclick={() => picker?.click()}>From CSV</button>
	<input
		bind:this={picker}
		type="file"
		accept=".csv,text/csv,text/plain"
		aria-label="CSV file of shafts"
		onchange={chosen}
		hidden
	/>
	{#if shafts.length && kept}
		<a class="link" href="/api/parts/{mark}/shafts" download>As CSV</a>
		<button class="link" onclick={label}>Labels</button>
	{/if}
</p>
{#if pasting}
	<form
		class="readings"
		onsubmit={(event) => {
			event.preventDefault();
			void take(new File([pasted], 'What was pasted', { type: 'text/plain' }));
		}}
	>
		<label class="paste"
			>A shaft a line: weight in grains and spine, or number, weight and spine; or with a first line
			such as “number,weight (g),spine (lb)”
			<textarea bind:value={pasted} rows="5" aria-label="Lines of shafts"></textarea></label
		>
		<button class="act" disabled={!pasted.trim()}>Take them in</button>
	</form>
{/if}
{#if fault}<p class="fault" role="alert">{fault}</p>{/if}
{#if labelling && sheets.length}
	<p class="line">
		<label
			>Sheet <select bind:value={sheet}>
				{#each sheets as one (one.id)}<option value={one.id}>{one.title}</option>{/each}
			</select></label
		>
		<label
			>gone already <input
				class="line-input few"
				bind:value={skip}
				inputmode="numeric"
				aria-label="Labels of the first sheet that are gone"
			/></label
		>
		<a
			class="act"
			target="_blank"
			href="/api/parts/{mark}/labels?sheet={sheet}&skip={Number.parseInt(skip) || 0}"
			>Labels as PDF</a
		>
		<span class="quiet">Print at 100 %.</span>
	</p>
{/if}
<Simulated
	label="See it done: a made-up dozen over scale and jig"
	stop="Stop measuring"
	begin={measure}
	onread={(read: { shafts: Shaft[] } | null) => (simulated = read?.shafts ?? [])}
>
	{#snippet children(read: { shafts: Shaft[] })}
		{read.shafts
			.map((s) => `${s.number}: ${reference.text(s.mass_gr!, 'mass')}, ${s.static_spine}`)
			.join(' · ')}.
	{/snippet}
</Simulated>
{#if simulated.length}<MatchedSet shafts={simulated} title="What would go together of these" />{/if}

<style>
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 1.2rem;
		align-items: baseline;
		margin-top: 0.3rem;
	}
	.paste {
		display: grid;
		gap: 0.3rem;
		color: var(--quiet);
	}
	textarea {
		font: inherit;
		font-variant-numeric: tabular-nums;
		background: var(--paper);
		color: var(--ink);
		border: 1px solid var(--line);
		padding: 0.4rem;
		width: 100%;
	}
	select {
		background: var(--paper);
		color: var(--ink);
		border: 0;
		border-bottom: 1px solid var(--line);
	}
	.few {
		width: 3rem;
	}
	.fault {
		color: var(--brick);
	}
</style>
