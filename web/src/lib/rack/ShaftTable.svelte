<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';

	/** The shafts of a set, one by one: what each weighs and reads, and what happened to it. */
	type Shaft = Schemas['Shaft'];
	let { shafts, onset }: { shafts: Shaft[]; onset: (shafts: Shaft[]) => void } = $props();
	const STATES: [Shaft['state'], string][] = [
		['whole', 'whole'],
		['put_by', 'put by'],
		['broken', 'broken'],
		['lost', 'lost']
	];
	let fault = $state<string | null>(null);

	function put(at: number, change: Partial<Shaft>): void {
		onset(shafts.map((shaft, i) => (i === at ? { ...shaft, ...change } : shaft)));
	}

	async function measure(
		at: number,
		field: 'mass_gr' | 'static_spine' | 'runout_mm',
		text: string
	): Promise<void> {
		fault = null;
		try {
			const quantity = { mass_gr: 'mass', static_spine: 'spine', runout_mm: 'small' }[field];
			put(at, { [field]: text.trim() ? await reference.read(text, quantity) : null });
		} catch (error) {
			fault = (error as Error).message;
		}
	}

	function add(count: number): void {
		const first = Math.max(0, ...shafts.map((s) => s.number)) + 1;
		const more = Array.from({ length: count }, (_, i) => ({
			number: first + i,
			mass_gr: null,
			static_spine: null,
			runout_mm: null,
			state: 'whole' as const,
			notes: ''
		}));
		onset([...shafts, ...more]);
	}
</script>

<h3>Shafts</h3>
{#if shafts.length}
	<div class="scroll">
		<table>
			<thead>
				<tr>
					<th>No.</th>
					<th>Weighed, {reference.unit('mass').label}</th>
					<th>Spine</th>
					<th>Out of straight, mm</th>
					<th>State</th>
					<th>Why, notes</th>
				</tr>
			</thead>
			<tbody>
				{#each shafts as shaft, i (shaft.number)}
					<tr class={shaft.state}>
						<td class="num">{shaft.number}</td>
						<td
							><input
								class="line-input num"
								value={shaft.mass_gr == null ? '' : reference.text(shaft.mass_gr, 'mass', false)}
								aria-label="Weight of shaft {shaft.number}"
								onchange={(e) => measure(i, 'mass_gr', e.currentTarget.value)}
							/></td
						>
						<td
							><input
								class="line-input num"
								value={shaft.static_spine ?? ''}
								aria-label="Spine of shaft {shaft.number}"
								onchange={(e) => measure(i, 'static_spine', e.currentTarget.value)}
							/></td
						>
						<td
							><input
								class="line-input num"
								value={shaft.runout_mm ?? ''}
								aria-label="Shaft {shaft.number} out of straight"
								onchange={(e) => measure(i, 'runout_mm', e.currentTarget.value)}
							/></td
						>
						<td
							><select
								value={shaft.state}
								aria-label="State of shaft {shaft.number}"
								onchange={(e) => put(i, { state: e.currentTarget.value as Shaft['state'] })}
							>
								{#each STATES as [id, word] (id)}<option value={id}>{word}</option>{/each}
							</select></td
						>
						<td
							><input
								class="line-input"
								value={shaft.notes ?? ''}
								placeholder={shaft.state === 'whole' ? '' : 'why'}
								maxlength="200"
								aria-label="Notes on shaft {shaft.number}"
								onchange={(e) => put(i, { notes: e.currentTarget.value })}
							/></td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
{:else}
	<p class="quiet">Number the shafts to keep what each weighs and what became of it.</p>
{/if}
{#if fault}<p class="fault" role="alert">{fault}</p>{/if}
<p class="line">
	<button class="link" onclick={() => add(1)}>Add a shaft</button>
	<button class="link" onclick={() => add(6)}>Add six</button>
	{#if shafts.length}
		<button class="link" onclick={() => onset(shafts.slice(0, -1))}>Take the last out</button>
	{/if}
</p>

<style>
	h3 {
		font-size: 1.1rem;
		margin: 1.2rem 0 0.3rem;
	}
	.scroll {
		overflow-x: auto;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		font-size: 0.92rem;
	}
	th {
		text-align: left;
		color: var(--quiet);
		font-weight: 400;
		border-bottom: 1px solid var(--line);
	}
	td {
		border-bottom: 1px solid var(--hair);
		padding: 0.15rem 0.6rem 0.15rem 0;
	}
	td .num {
		width: 5rem;
	}
	.broken td,
	.lost td {
		color: var(--quiet);
		text-decoration: line-through;
	}
	select {
		background: var(--paper);
		color: var(--ink);
		border: 0;
		border-bottom: 1px solid var(--line);
	}
	.line {
		display: flex;
		gap: 1.2rem;
		margin-top: 0.4rem;
	}
	.fault {
		color: var(--brick);
	}
</style>
