<script lang="ts">
	import { untrack } from 'svelte';
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { useBench, type Part, type Slot } from '$lib/bench/bench.svelte';
	import { latest } from '$lib/bench/latest';
	import { notify } from '$lib/bench/notice.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import PartFields from './PartFields.svelte';
	import PartShape from './PartShape.svelte';
	import PartState from './PartState.svelte';

	/** Another part put on: one of the rack, or a new one. What rested on the former is due. */
	let { slots }: { slots: Slot[] } = $props();
	const bench = useBench();
	const attempt = new Attempt();
	let silent = $state<string | null>(null);
	let slot = $state<Slot | null>(null);
	let lines = $state<Schemas['PartLine'][]>([]);
	let why = $state('');
	let making = $state(false);
	let name = $state('');
	let fresh = $state<Record<string, unknown>>({});

	const here = $derived(slot ?? slots[0]);
	const worn = $derived(bench().kept.parts.map((p) => p.mark));
	const on = $derived(bench().kept.parts.find((p) => p.slot === here));
	const place = $derived(here ? reference.catalog?.slots[here] : undefined);
	const kind = $derived(place?.kind ?? '');
	const order = (l: Schemas['PartLine']): number =>
		(l.state === 'in_use' ? 0 : 2) + (l.rigs.some((r) => r.is_on) ? 1 : 0) + (l.stop ? 8 : 0);
	const offered = $derived(
		lines
			.filter((l) => l.kind === kind && !worn.includes(l.mark))
			.toSorted((a, b) => order(a) - order(b))
	);

	const look = latest<number>(async () => {
		try {
			lines = await told(api.GET('/api/parts'));
			silent = null;
		} catch (error) {
			silent = (error as Error).message;
		}
	});
	$effect(() => look(bench().kept.seq));

	async function put(part: { mark: string } | { new: Part }, called: string): Promise<void> {
		if (await bench().putOn(here as Slot, part, why)) {
			notify(`${called} is on. Ctrl+Z takes it back.`);
			making = false;
			name = why = '';
			fresh = {};
			draft.settle();
		}
	}

	const draft = useDraft(
		untrack(() => `new part for ${slots.join(' or ')}`),
		() => ({ slot, making, name, why, fresh }),
		(was) => ({ slot, making, name, why, fresh } = was)
	);

	/** A new part begins as the one that is on now. */
	async function begin(): Promise<void> {
		if (!on) return;
		await attempt.run(async () => {
			const { part } = await told(
				api.GET('/api/parts/{mark}', { params: { path: { mark: on.mark } } })
			);
			const { of } = part as { of: Record<string, unknown> };
			fresh = { ...of, ...(kind === 'string' ? { twists: null, length_in: of.length_in } : {}) };
			if (kind === 'arrows') fresh.shafts = [];
			name = '';
			making = true;
		});
	}

	function make(event: Event): void {
		event.preventDefault();
		const part = { name, notes: '', of: $state.snapshot(fresh) } as unknown as Part;
		void put({ new: part }, name);
	}
</script>

{#if slots.length > 1}
	<p class="slots" role="group" aria-label="What to change">
		{#each slots as one (one)}
			<button
				class="act plain"
				aria-pressed={one === here}
				onclick={() => ((slot = one), (making = false))}
				>{reference.catalog?.slots[one]?.name}</button
			>
		{/each}
	</p>
{/if}
{#if on}
	<p>
		On now: <a class="link" href="/rack/{on.mark}">{on.name}</a>, <SaidText said={on.what} />.
	</p>
{/if}
{#if attempt.fault ?? silent}<p class="fault" role="alert">{attempt.fault ?? silent}</p>{/if}

<ul>
	{#each offered as line, i (line.mark)}
		<li>
			<PartShape kind={line.kind} size={line.size_in} inch={1.4} />
			<span>
				<a class="name" href="/rack/{line.mark}">{line.name}</a>
				<span class="quiet"><SaidText said={line.what} /></span>
			</span>
			<span class="state"><PartState {line} /></span>
			{#if line.state !== 'condemned' && line.state !== 'lent'}
				<button
					class="act plain"
					data-trial={i === 0 ? '' : undefined}
					disabled={bench().busy || bench().dirty}
					onclick={() => put({ mark: line.mark }, line.name)}
					>Put on<span class="sr-only"> {line.name}</span></button
				>
			{/if}
		</li>
	{:else}
		<li class="quiet">No other {place?.name} on the rack.</li>
	{/each}
</ul>
{#if bench().dirty}<p class="quiet">Keep or take back your changes first.</p>{/if}

{#if making}
	<form onsubmit={make}>
		<label class="named"
			>Name <input class="line-input" bind:value={name} maxlength="80" required /></label
		>
		<PartFields
			{kind}
			body={fresh}
			onset={(field, value) => (fresh = { ...fresh, [field]: value })}
		/>
		<p class="line">
			<input
				class="line-input"
				bind:value={why}
				maxlength="200"
				placeholder="why (may stay empty)"
				aria-label="Reason"
			/>
			<button class="act" disabled={!name.trim() || bench().busy || bench().dirty}
				>Put the new {place?.name} on</button
			>
			<button type="button" class="act plain" onclick={() => (making = false)}>Back</button>
		</p>
	</form>
{:else if here}
	<button class="link" onclick={begin}>A new {place?.name}</button>
{/if}
<p class="quiet">
	It brings along what is known of it: {kind === 'string'
		? 'its turns, how it settles, what it weighs'
		: kind === 'arrows'
			? 'weight, spine and what was weighed'
			: 'its markings and measurements'}. What rested on the former one is then due:
	{place?.due.join(', ')}.
</p>

<style>
	.slots,
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 0.8rem;
		margin-bottom: 0.5rem;
		align-items: center;
	}
	.slots [aria-pressed='true'] {
		border-color: var(--heather);
		color: var(--heather);
		font-weight: 600;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0.5rem 0;
		border-top: 1px solid var(--line);
	}
	li {
		display: grid;
		grid-template-columns: 7.5rem 1fr minmax(9rem, 14rem) auto;
		gap: 0.2rem 1rem;
		align-items: center;
		padding: 0.4rem 0;
		border-bottom: 1px solid var(--hair);
		overflow: hidden;
	}
	li > span > * {
		display: block;
	}
	li .name {
		display: flex;
		align-items: center;
		min-height: var(--target);
		font-weight: 600;
	}
	.state {
		font-size: 0.9rem;
	}
	p.quiet {
		margin-top: 0.5rem;
		font-size: 0.85rem;
	}
	.fault {
		color: var(--brick);
	}
	.named {
		display: flex;
		gap: 0.8rem;
		align-items: baseline;
		margin: 0.4rem 0 0.8rem;
	}
	.line .line-input,
	.named .line-input {
		flex: 1 1 12rem;
	}
	@media (max-width: 700px) {
		li {
			grid-template-columns: 1fr auto;
		}
		.state {
			grid-column: 1;
		}
	}
</style>
