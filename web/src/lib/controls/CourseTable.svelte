<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { reference } from '$lib/bench/reference.svelte';

	/** The targets of a course, one a line, each with what to aim by. */
	type Target = Schemas['Target'];
	interface Props {
		targets: Target[];
		lines: Schemas['CardLine'][];
		onset: (targets: Target[]) => void;
	}
	let { targets, lines, onset }: Props = $props();
	const FIELDS = [
		{ name: 'distance_m', title: 'Distance', quantity: 'distance' },
		{ name: 'slope_deg', title: 'Slope', quantity: 'angle' },
		{ name: 'spot_half_height_cm', title: 'Half spot', quantity: 'spot' }
	] as const;
	let fault = $state<string | null>(null);
	/** What is being read belongs to its line: nothing moves meanwhile. */
	let reading = $state(0);

	const put = (at: number, change: Partial<Target>) =>
		onset(targets.map((t, i) => (i === at ? { ...t, ...change } : t)));
	async function measure(at: number, field: (typeof FIELDS)[number], text: string): Promise<void> {
		fault = null;
		reading += 1;
		try {
			put(at, { [field.name]: await reference.read(text, field.quantity) });
		} catch (error) {
			fault = `Target ${at + 1}: ${(error as Error).message}`;
		} finally {
			reading -= 1;
		}
	}
	function move(at: number, by: number): void {
		const moved = [...targets];
		[moved[at], moved[at + by]] = [moved[at + by]!, moved[at]!];
		onset(moved);
	}
	function aim(line: Schemas['CardLine'] | undefined): string {
		if (!line) return '–';
		if (line.why) return line.why;
		if (line.crawl_mm != null) return reference.text(line.crawl_mm, 'crawl');
		const over = line.hold_over_cm ?? -(line.gap_cm ?? 0);
		return `${reference.text(Math.abs(over), 'spot')} ${over > 0 ? 'over' : 'under'}`;
	}
	function marks(line: Schemas['CardLine'] | undefined): string {
		const c = line?.counted;
		if (c) return c.words || reference.text(c.marks, 'marks');
		return line?.tip_widths != null ? reference.text(line.tip_widths, 'shafts') : '';
	}
	const good = (line: Schemas['CardLine'] | undefined) =>
		line?.near_m == null || line.far_m == null
			? ''
			: `${reference.text(line.near_m, 'distance', false)} to ${reference.text(line.far_m, 'distance')}`;
</script>

<div class="scroll">
	<table>
		<thead>
			<tr>
				<th scope="col"><span class="sr-only">Number</span></th>
				<th scope="col">Target</th>
				{#each FIELDS as f (f.name)}
					<th scope="col">{f.title}, {reference.unit(f.quantity).label}</th>
				{/each}
				<th scope="col">Aim</th>
				<th scope="col">Counted</th>
				<th scope="col">Good</th>
				<th scope="col"><span class="sr-only">Order</span></th>
			</tr>
		</thead>
		<tbody>
			{#each targets as t, i (i)}
				<tr>
					<td class="num">{i + 1}</td>
					<td
						><input
							class="line-input name"
							value={t.name}
							maxlength="40"
							placeholder="boar by the beech"
							aria-label="Name of target {i + 1}"
							onchange={(e) => put(i, { name: e.currentTarget.value })}
						/></td
					>
					{#each FIELDS as f (f.name)}
						<td
							><input
								class="line-input num"
								value={reference.text(t[f.name] ?? 0, f.quantity, false)}
								aria-label="{f.title} of target {i + 1}"
								onchange={(e) => measure(i, f, e.currentTarget.value)}
							/></td
						>
					{/each}
					<td class="aim"><span class:why={lines[i]?.why}>{aim(lines[i])}</span></td>
					<td>{marks(lines[i])}</td>
					<td class="quiet">{good(lines[i])}</td>
					<td class="order">
						<button
							type="button"
							class="link"
							disabled={i === 0 || reading > 0}
							aria-label="Target {i + 1} one up"
							onclick={() => move(i, -1)}>↑</button
						>
						<button
							type="button"
							class="link"
							disabled={i === targets.length - 1 || reading > 0}
							aria-label="Target {i + 1} one down"
							onclick={() => move(i, 1)}>↓</button
						>
						<button
							type="button"
							class="link"
							disabled={targets.length === 1 || reading > 0}
							aria-label="Take target {i + 1} out"
							onclick={() => onset(targets.filter((_, j) => j !== i))}>×</button
						>
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
</div>
{#if fault}<p class="wrong" role="alert">{fault}</p>{/if}

<style>
	.scroll {
		overflow-x: auto;
	}
	table {
		width: 100%;
		font-size: 0.93rem;
	}
	th {
		text-align: left;
		font-weight: 400;
		color: var(--quiet);
		font-size: 0.8rem;
	}
	td,
	th {
		padding: 0.15rem 0.5rem 0.15rem 0;
		border-bottom: 1px solid var(--hair);
		white-space: nowrap;
	}
	.name {
		width: 8.6rem;
	}
	td .num {
		width: 3.2rem;
	}
	.aim {
		font-weight: 700;
	}
	.why {
		display: inline-block;
		max-width: 14rem;
		font-weight: 400;
		white-space: normal;
	}
	.order .link {
		min-width: 24px;
		min-height: 24px;
		text-decoration: none;
	}
	@media (max-width: 899px) {
		.order .link {
			min-width: 44px;
			min-height: 44px;
		}
	}
	.wrong {
		color: var(--brick);
	}
</style>
