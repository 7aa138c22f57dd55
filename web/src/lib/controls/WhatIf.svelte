<script lang="ts">
	import { api, told, type Schemas } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { latest } from '$lib/bench/latest';
	import { reference, type Shown } from '$lib/bench/reference.svelte';
	import Measure from '$lib/format/Measure.svelte';
	import WhatIfPlate from '$lib/plates/WhatIfPlate.svelte';

	/** Two or three arrows beside the one that is on: each row of the table is what it changes. */
	type Arrow = Schemas['ArrowOnBow'];
	type Told = Schemas['WhatIfOut'];
	interface Other {
		name: string;
		changes: Record<string, number>;
	}
	const MOST = 3;
	const FIELDS = [
		{ path: 'arrow.shaft_length_in', label: 'shaft', quantity: 'draw' },
		{ path: 'arrow.point_gr', label: 'point', quantity: 'mass' },
		{ path: 'arrow.grains_per_inch', label: 'weighs', quantity: 'gpi' },
		{ path: 'arrow.static_spine', label: 'spine', quantity: 'spine' }
	];
	const bench = useBench();
	let others = $state<Other[] | null>(null);
	let answer = $state.raw<Told | null>(null);
	let problem = $state('');
	/** What was typed and cannot be read. */
	let unread = $state('');

	const ask = latest<void>(async (_, current) => {
		const sent = {
			changes: $state.snapshot(bench().changes) as Record<string, unknown>,
			others: (others ?? []).map((o) => $state.snapshot(o.changes))
		};
		const params = { path: { id: bench().id } };
		try {
			const got = await told(api.POST('/api/rigs/{id}/what-if', { params, body: sent }));
			problem = '';
			if (current()) answer = got;
			others ??= got.suggested
				.slice(0, 2)
				.map(({ name, changes }) => ({ name, changes: changes as Record<string, number> }));
		} catch (error) {
			problem = (error as Error).message;
		}
	});
	$effect(() => {
		void JSON.stringify([bench().changes, others, bench().kept.seq]);
		ask();
	});

	const rows = $derived(answer?.rows ?? []);
	const now = $derived(rows[0]?.arrow ?? null);
	const left = $derived(
		(answer?.suggested ?? []).filter((s) => !(others ?? []).some((o) => o.name === s.name))
	);
	const FLOOR = {
		below: 'too light: do not shoot it',
		tolerated: 'a little light, tolerable if stiff',
		mind: 'over one floor, not the other',
		fine: 'over every floor'
	} as const;
	const FITS = { stiff: 'looks stiff', fits: 'in the window', weak: 'looks weak' } as const;

	interface Line {
		title: string;
		/** What it trades, in a word. */
		about: string;
		value: (a: Arrow) => Shown | null;
		word?: (a: Arrow) => string;
	}
	const of = (quantity: string, value: number | null | undefined, plus_minus?: number) =>
		value == null ? null : { quantity, value, plus_minus };
	const far = $derived(now?.far ?? null);
	const at = $derived(far ? reference.text(far.far_m, 'distance') : '');
	const near = $derived(far ? reference.text(far.near_m, 'distance') : '');
	const lines = $derived<Line[]>([
		{ title: 'Weighs', about: '', value: (a) => of('mass', a.mass_gr.value) },
		{
			title: 'Grains per pound',
			about: 'strain',
			value: (a) => of('gpp', a.gpp.value),
			word: (a) => FLOOR[a.verdict]
		},
		{ title: 'Stays in the bow', about: 'noise, strain', value: (a) => of('energy', a.stays_ftlb) },
		{
			title: 'Speed',
			about: '',
			value: (a) => of('speed', a.speed_fps.value, a.speed_fps.plus_minus)
		},
		{ title: 'Energy it carries', about: '', value: (a) => of('energy', a.energy_ftlb) },
		{ title: 'Momentum', about: '', value: (a) => of('momentum', a.momentum_lb_s) },
		{
			title: 'Forward of centre',
			about: 'forgiveness',
			value: (a) => of('percent', a.front_of_centre_pct)
		},
		{
			title: 'Acts like spine',
			about: '',
			value: (a) => of('spine', a.acts_spine),
			word: (a) => (a.fits ? FITS[a.fits] : 'no window here')
		},
		{ title: 'Point-on', about: '', value: (a) => of('distance', a.point_on_m?.value) },
		...(far
			? [
					{
						title: `Crawl at ${at}`,
						about: '',
						value: (a: Arrow) => of('crawl', a.far?.far_m === far.far_m ? a.far.crawl_mm : null)
					},
					{
						title: `Drop from ${near} to ${at}`,
						about: 'flatness',
						value: (a: Arrow) => of('spot', a.far?.far_m === far.far_m ? a.far.drop_cm : null)
					},
					{
						title: `Within the spot at ${at}`,
						about: 'danger space',
						value: (a: Arrow) => of('distance', a.far?.far_m === far.far_m ? a.far.danger_m : null)
					},
					{
						title: `In the air to ${at}`,
						about: '',
						value: (a: Arrow) => of('seconds', a.far?.far_m === far.far_m ? a.far.flight_s : null)
					}
				]
			: [])
	]);

	async function type(i: number, path: string, quantity: string, text: string): Promise<void> {
		if (!others) return;
		unread = '';
		try {
			const changes = Object.fromEntries(
				Object.entries(others[i]!.changes).filter(([other]) => other !== path)
			);
			if (text.trim()) changes[path] = await reference.read(text, quantity);
			others[i] = { ...others[i]!, changes };
		} catch (error) {
			unread = (error as Error).message;
		}
	}
	const put = (other: Other): void => {
		for (const [path, value] of Object.entries(other.changes)) bench().set(path, value);
	};
	const add = (s: Schemas['Suggested']): void => {
		others = [...(others ?? []), { name: s.name, changes: s.changes as Record<string, number> }];
	};
	const shownAt = (i: number, path: string, quantity: string): string => {
		const value = others?.[i]?.changes[path];
		return value === undefined ? '' : reference.text(value, quantity, false);
	};
	const ownAt = (path: string, quantity: string): string =>
		reference.text(bench().value(path) as number, quantity, false);
</script>

<WhatIfPlate
	arrows={rows.map((r, i) => ({
		name: i === 0 ? 'As it is' : (others?.[i - 1]?.name ?? ''),
		arrow: r.arrow
	}))}
/>
{#if unread || problem}<p class="wrong" role="alert">{unread || problem}</p>{/if}
{#if others}
	<form class="readings builds" onsubmit={(e) => e.preventDefault()}>
		{#each others as other, i (other.name)}
			<fieldset>
				<legend>{other.name}</legend>
				{#each FIELDS as field (field.path)}
					<label
						>{field.label}
						<input
							class="line-input num"
							value={shownAt(i, field.path, field.quantity)}
							placeholder={ownAt(field.path, field.quantity)}
							aria-label="{field.label} of {other.name.toLowerCase()}"
							onchange={(e) => type(i, field.path, field.quantity, e.currentTarget.value)}
						/>
						{reference.unit(field.quantity).label}</label
					>
				{/each}
				<span class="deeds">
					<button
						type="button"
						class="act plain"
						disabled={!rows[i + 1]?.arrow || rows[i + 1]?.arrow?.verdict === 'below'}
						onclick={() => put(other)}>Put it on the bench</button
					>
					<button
						type="button"
						class="link"
						onclick={() => (others = others!.filter((o) => o !== other))}>Take it out</button
					>
				</span>
			</fieldset>
		{/each}
		{#if others.length < MOST && left.length}
			<p class="line">
				<span class="quiet">Beside it also</span>
				{#each left as s (s.name)}<button type="button" class="link" onclick={() => add(s)}
						>{s.name.toLowerCase()}</button
					>{/each}
			</p>
		{/if}
	</form>
{/if}
{#if now}
	<div class="scroll">
		<table>
			<caption class="quiet">What each changes on this bow</caption>
			<thead>
				<tr>
					<td></td>
					<th scope="col">As it is</th>
					{#each others ?? [] as other (other.name)}<th scope="col">{other.name}</th>{/each}
				</tr>
			</thead>
			<tbody>
				{#each lines as line (line.title)}
					<tr>
						<th scope="row"
							>{line.title}{#if line.about}<span class="about">{line.about}</span>{/if}</th
						>
						{#each rows as row, i (i)}
							{@const shown = row.arrow ? line.value(row.arrow) : null}
							<td class:below={row.arrow?.verdict === 'below' && line.word}>
								{#if shown}<Measure value={shown} />{:else}–{/if}
								{#if row.arrow && line.word}<span class="about">{line.word(row.arrow)}</span>{/if}
							</td>
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	{#each rows as row, i (i)}
		{#if row.problem}
			<p class="wrong">
				{others?.[i - 1]?.name}: {row.problem.said
					? reference.said(row.problem.said)
					: row.problem.reason}
			</p>
		{/if}
	{/each}
{/if}

<style>
	.builds {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
		gap: 0.4rem 1.6rem;
	}
	.builds .line {
		grid-column: 1 / -1;
	}
	fieldset {
		border: 0;
		border-top: 1px solid var(--line);
		padding: 0.2rem 0 0;
		margin: 0;
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.15rem 1rem;
	}
	legend {
		font-family: var(--slab);
		font-weight: 600;
		padding: 0 0.6rem 0 0;
	}
	label {
		display: flex;
		gap: 0.4rem;
		align-items: baseline;
		color: var(--quiet);
		white-space: nowrap;
	}
	.num {
		width: 4.2rem;
	}
	.deeds {
		grid-column: 1 / -1;
		display: flex;
		gap: 1rem;
		align-items: center;
	}
	.scroll {
		overflow-x: auto;
		margin-top: 0.7rem;
	}
	table {
		width: 100%;
		font-size: 0.93rem;
	}
	caption {
		text-align: left;
	}
	th,
	td {
		text-align: left;
		font-weight: 400;
		vertical-align: baseline;
		padding: 0.18rem 1rem 0.18rem 0;
		border-bottom: 1px solid var(--hair);
	}
	thead th {
		font-weight: 600;
		border-bottom-color: var(--line);
	}
	tbody th {
		color: var(--quiet);
	}
	.about {
		display: block;
		font-size: 0.78rem;
		color: var(--quiet);
	}
	.below,
	.below .about {
		color: var(--brick);
	}
	.wrong {
		color: var(--brick);
	}
</style>
