<script lang="ts">
	import { notify } from '$lib/bench/notice.svelte';
	import { reference, type Theme } from '$lib/bench/reference.svelte';
	import Sheet from './Sheet.svelte';

	let { open = $bindable(false) }: { open: boolean } = $props();

	const kinds = $derived(
		Object.values(reference.catalog?.quantities ?? {}).filter((q) => q.choices.length > 1)
	);
	const names: Record<string, string> = {
		in_8: 'inches, eighths',
		in_16: 'inches, sixteenths',
		in: 'inches, decimal',
		mm: 'mm',
		mm_1: 'mm, tenths',
		cm: 'cm',
		m: 'metres',
		yd: 'yards',
		lb: 'pounds',
		kg: 'kilograms',
		gr: 'grains',
		g: 'grams',
		fps: 'ft/s',
		mps: 'm/s',
		ftlb: 'ft·lb',
		J: 'joules'
	};
	const themes: [Theme, string][] = [
		['system', 'as the machine'],
		['light', 'paper'],
		['dark', 'lamp']
	];

	async function prefer(change: Parameters<typeof reference.prefer>[0]): Promise<void> {
		try {
			await reference.prefer(change);
		} catch (error) {
			notify((error as Error).message);
		}
	}

	function usual(): void {
		void prefer({ units: Object.fromEntries(kinds.map((q) => [q.id, null])) });
	}

	function all(metric: boolean): void {
		const want = metric ? ['mm', 'mm_1', 'cm', 'kg', 'g', 'm', 'mps', 'J'] : ['yd', 'in_8'];
		const units = Object.fromEntries(
			kinds.map((q) => {
				const found = want.map((u) => q.choices.find((c) => c === u)).find(Boolean);
				return [q.id, found ?? q.choices[0] ?? ''];
			})
		);
		void prefer({ units });
	}
</script>

<Sheet bind:open title="Units and light">
	<p class="quiet">Only what is shown changes; nothing stored does.</p>
	<p class="sets">
		<button class="link" onclick={() => all(false)}>All in inches and pounds</button>
		<button class="link" onclick={() => all(true)}>All metric</button>
		<button class="link" onclick={usual}>The usual mix</button>
	</p>
	<div class="grid">
		{#each kinds as kind (kind.id)}
			<label>
				{kind.title}
				<select
					value={reference.units[kind.id] ?? kind.choices[0]}
					onchange={(e) => prefer({ units: { [kind.id]: e.currentTarget.value } })}
				>
					{#each kind.choices as unit (unit)}<option value={unit}>{names[unit] ?? unit}</option
						>{/each}
				</select>
			</label>
		{/each}
		<label>
			Light
			<select
				value={reference.theme}
				onchange={(e) => prefer({ theme: e.currentTarget.value as Theme })}
			>
				{#each themes as [id, title] (id)}<option value={id}>{title}</option>{/each}
			</select>
		</label>
	</div>
</Sheet>

<style>
	.sets {
		display: flex;
		gap: 1.2rem;
		margin: 0.6rem 0 1rem;
	}
	.grid {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.8rem 1.6rem;
	}
	label {
		color: var(--quiet);
		font-size: 0.85rem;
	}
	select {
		display: block;
		width: 100%;
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--line);
		color: var(--ink);
		padding: 0.25rem 0;
		font-size: 1rem;
	}
	option {
		background: var(--raised);
	}
</style>
