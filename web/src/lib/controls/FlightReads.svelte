<script lang="ts">
	import { useBench, type TrialOf } from '$lib/bench/bench.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { TrialForm } from '$lib/bench/trialForm.svelte';
	import Lazy from '$lib/frame/Lazy.svelte';
	import TrialList from './TrialList.svelte';

	/** Log a read: nocks on the 3×3 block by tap or number key, any other test by its outcome. */
	type Test = TrialOf<'flight_read'>['test'];
	const BLOCK = [7, 8, 9, 4, 5, 6, 1, 2, 3];
	const LEFT_OUT = 'reading.left_out';
	const bench = useBench();
	const told = $derived(bench().bench.reading ?? null);
	const left = $derived(bench().value(LEFT_OUT) as Test[]);
	const tests = $derived(
		[...(told?.tests ?? [])].sort((a, b) => (b.worth ?? -1) - (a.worth ?? -1))
	);
	let test = $state<Test>('kick_7_paces');
	const asked = $derived(told?.tests.find((t) => t.id === test) ?? null);
	const kick = $derived(asked?.on_block ?? false);
	const where = (cell: number) => told?.block.find((p) => p.cell === cell)?.words ?? '';
	let nocks = $state<number[]>([]);
	let distance = $state('');
	let shaft = $state<'fletched' | 'bare'>('fletched');
	const form = new TrialForm('flight_read', bench, () => (nocks = []));

	const log = (outcome: string) =>
		form.log(
			'flight',
			async () => ({
				test,
				outcome,
				nocks: kick ? [...nocks] : [],
				arrows: kick ? nocks.length : (asked?.arrows ?? 0),
				distance_m: distance.trim() ? await reference.read(distance, 'distance') : null,
				shaft
			}),
			$state.snapshot(bench().changes) as Record<string, unknown>
		);
	form.keeps(
		'read of the flight',
		() => ({ test, nocks, distance, shaft }),
		(was) => ({ test, nocks, distance, shaft } = was)
	);
	const edit = form.edit((was) => {
		test = was.test;
		nocks = [...(was.nocks ?? [])];
		distance = was.distance_m == null ? '' : reference.text(was.distance_m, 'distance', false);
		shaft = was.shaft ?? 'fletched';
	});
	const put = (cell: number) => (nocks = [...nocks, cell].slice(-24));
	const leave = (id: Test, out: boolean) =>
		bench().set(LEFT_OUT, out ? [...left, id] : left.filter((other) => other !== id));

	/** Enter in the last field logs what stands on the block. */
	function enter(event: KeyboardEvent): void {
		if (event.key !== 'Enter' || !nocks.length || bench().busy) return;
		event.preventDefault();
		void log('');
	}

	function key(event: KeyboardEvent): void {
		const typed = event.target instanceof HTMLInputElement && event.target.type !== 'radio';
		if (typed || event.target instanceof HTMLSelectElement || !kick) return;
		if (event.ctrlKey || event.metaKey || event.altKey || bench().busy) return;
		if (/^[1-9]$/.test(event.key)) put(Number(event.key));
		else if (event.key === 'Backspace') nocks = nocks.slice(0, -1);
		else if (event.key === 'Enter' && nocks.length && !(event.target as HTMLElement).dataset.own)
			void log('');
		else return;
		event.preventDefault();
	}
</script>

{#if told}
	<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
	<form
		class="readings"
		aria-label="A flight read"
		onsubmit={(e) => e.preventDefault()}
		onkeydown={key}
	>
		<label class="line"
			>Test
			<select class="line-input tests" bind:value={test} data-own="1" aria-label="Test">
				{#each tests.filter((t) => !left.includes(t.id)) as t (t.id)}
					<option value={t.id}>{t.title}</option>
				{/each}
			</select></label
		>
		{#if asked}<p class="quiet">{asked.how}</p>{/if}
		<div class="work">
			{#if kick}
				<div class="block" role="group" aria-label="Where each arrow nock leans, as you see it">
					{#each BLOCK as cell (cell)}
						<button
							type="button"
							class="act plain"
							data-trial={cell === 5 ? '' : undefined}
							aria-label="Nock {where(cell)}, {cell}"
							onclick={() => put(cell)}
						>
							<kbd>{cell}</kbd>
							{#if nocks.includes(cell)}<span class="dots" aria-hidden="true"
									>{'●'.repeat(nocks.filter((n) => n === cell).length)}</span
								>{/if}
						</button>
					{/each}
				</div>
				<div class="beside">
					<p aria-live="polite">
						{nocks.length
							? `${nocks.length} ${nocks.length === 1 ? 'arrow' : 'arrows'}: ${nocks.map(where).join(', ')}`
							: 'No arrow yet: tap where its nock leans, or press 1 to 9.'}
					</p>
					<p class="line">
						<button
							type="button"
							class="act"
							data-own="1"
							disabled={!nocks.length || bench().busy}
							onclick={() => log('')}
							>{form.about === null ? `Log ${nocks.length || ''}` : 'Put it right'}</button
						>
						<button
							type="button"
							class="act plain"
							data-own="1"
							disabled={!nocks.length}
							onclick={() => (nocks = nocks.slice(0, -1))}>Take one back</button
						>
					</p>
					<label
						>from <input
							class="line-input num"
							bind:value={distance}
							aria-label="Distance"
							onkeydown={enter}
						/>
						{reference.unit('distance').label}</label
					>
					<select
						class="line-input bare"
						bind:value={shaft}
						data-own="1"
						aria-label="Fletched or bare"
					>
						<option value="fletched">fletched</option>
						<option value="bare">bare</option>
					</select>
				</div>
			{:else if asked}
				<div class="outcomes" role="group" aria-label="What it showed">
					{#each asked.outcomes as o (o.id)}
						<button
							type="button"
							class="act plain"
							disabled={bench().busy}
							onclick={() => log(o.id)}>{o.words}</button
						>
					{/each}
				</div>
			{/if}
		</div>
		{#if form.about !== null}
			<p>
				<strong>Put right: say what it was.</strong>
				<button type="button" class="link" onclick={() => form.clear()}>Leave it</button>
			</p>
		{/if}
		{#if form.problem}<p class="wrong" role="alert">{form.problem}</p>{/if}
	</form>
	{#if test === 'slow_motion'}
		<Lazy of={() => import('./SlowLook.svelte')} />
	{:else if test === 'clatter'}
		<Lazy of={() => import('./Clatter.svelte')} />
	{/if}
	<ul class="classes" aria-label="How likely the shaft is what">
		{#each told.classes as c (c.id)}
			<li>
				<span class="bar" style:width="{Math.max(100 * c.chance, 0.5)}%"></span>
				<span class="num">{reference.text(100 * c.chance, 'percent')}</span>
				{c.words}
			</li>
		{/each}
	</ul>
	<details>
		<summary class="link">Tests that you make</summary>
		<ul class="made">
			{#each told.tests as t (t.id)}
				<li>
					<label class="pick"
						><input
							type="checkbox"
							checked={!left.includes(t.id)}
							onchange={(e) => leave(t.id, !e.currentTarget.checked)}
						/>
						{t.title}{t.arrows ? `: ${t.arrows} arrows` : ''}</label
					>
				</li>
			{/each}
		</ul>
	</details>
	<TrialList
		kinds={['flight_read']}
		empty="The flight was not read yet."
		edits="flight_read"
		onedit={edit}
	/>
{/if}

<style>
	.work {
		display: flex;
		flex-wrap: wrap;
		gap: 1rem 1.6rem;
		align-items: flex-start;
		margin: 0.5rem 0;
	}
	.block {
		display: grid;
		grid-template-columns: repeat(3, minmax(56px, 76px));
		gap: 4px;
	}
	.block .act {
		display: grid;
		gap: 0;
		place-content: center;
		min-height: 52px;
	}
	kbd {
		font-family: var(--mono);
		color: var(--quiet);
	}
	.dots {
		color: var(--heather);
		font-size: 0.8rem;
		letter-spacing: 0.1em;
	}
	.beside {
		flex: 1 1 14rem;
		display: grid;
		gap: 0.5rem;
		justify-items: start;
	}
	.outcomes {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
		gap: 0.5rem;
		width: 100%;
	}
	.outcomes .act {
		min-height: 44px;
		text-align: left;
	}
	.classes,
	.made {
		list-style: none;
		margin: 0.6rem 0;
		padding: 0;
	}
	.classes li {
		position: relative;
		padding: 0.3rem 0.6rem;
	}
	.bar {
		position: absolute;
		inset: 2px auto 2px 0;
		z-index: -1;
		background: var(--heather-wash);
		border-left: 3px solid var(--heather);
	}
	.classes .num {
		display: inline-block;
		width: 3.6rem;
		font-weight: 600;
	}
	.classes {
		isolation: isolate;
	}
	.tests {
		width: 19rem;
		max-width: 100%;
	}
	.beside .bare {
		width: 7rem;
	}
	.beside .num {
		width: 4.5rem;
	}
	@media (max-width: 480px) {
		.block {
			grid-template-columns: repeat(3, 1fr);
			width: 100%;
		}
	}
</style>
