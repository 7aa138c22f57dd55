<script lang="ts">
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { notify } from '$lib/bench/notice.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import FindingFold from '$lib/frame/FindingFold.svelte';
	import OptionList from './OptionList.svelte';

	/** One bow for an archer: what speaks for and against, its string and arrows, and taking it. */
	interface Props {
		build: Schemas['Buildable'];
		archer: Schemas['PartLine'];
		use: Schemas['AskIn']['use'];
		most: number | null;
		/** Something was taken out or brought back. */
		onchange: () => Promise<void>;
	}
	let { build, archer, use, most, onchange }: Props = $props();
	type Option = Schemas['Option'];
	type Lent = Schemas['Lent'];
	const attempt = new Attempt();
	const first = (options: Option[]): string =>
		options[0] && options[0].level !== 'stop' ? options[0].part.mark : '';
	// svelte-ignore state_referenced_locally (made anew for another bow)
	let string = $state(first(build.strings));
	// svelte-ignore state_referenced_locally
	let arrows = $state(first(build.sets));
	let lend = $state(true);
	let back = $state('');
	let write = $state(false);
	let name = $state('');
	let taken = $state<Lent | null>(null);
	let busy = $state(false);

	const chosen = $derived(
		[
			build.strings.find((o) => o.part.mark === string),
			build.sets.find((o) => o.part.mark === arrows)
		].filter((o) => o !== undefined)
	);
	const parts = $derived([...build.parts, ...chosen.map((o) => o.part)]);
	const lent = $derived(parts.filter((p) => p.state === 'lent'));
	const elsewhere = $derived(parts.filter((p) => p.state === 'in_use' && !p.free));
	const stops = $derived(
		[build.findings, ...chosen.map((o) => o.findings)].flat().filter((f) => f.level === 'stop')
	);
	const speaking = $derived(build.schools.filter((s) => s.verdict !== 'silent'));
	const called = $derived(name.trim() || `${archer.name}, ${build.parts[0]?.name}`.slice(0, 80));
	const whole = $derived(chosen.length === 2);
	const nothing = $derived(!lend && !(write && whole));

	async function take(event: Event): Promise<void> {
		event.preventDefault();
		busy = true;
		await attempt.run(async () => {
			const on = Object.fromEntries(parts.map((p) => [p.slot, { mark: p.mark, seq: p.seq }]));
			const body = {
				archer: archer.mark,
				use,
				most_lbf: most,
				parts: on as never,
				rig: write && whole ? called : null,
				due_back: lend ? back : null
			};
			taken = await told(api.POST('/api/parts/take-out', { body }));
			notify(lend ? `Lent to ${archer.name}.` : `${called} is written up.`);
			await onchange();
		});
		busy = false;
	}

	async function bring(lent: Lent): Promise<void> {
		busy = true;
		await attempt.run(async () => {
			const back = lent.lines.map(({ mark, seq, digest }) => ({ mark, seq, digest }));
			await told(api.POST('/api/parts/take-back', { body: { parts: back } }));
			taken = null;
			notify('All of it is back on the rack.');
			await onchange();
		});
		busy = false;
	}
	const calendar = (lent: Lent): string =>
		`/api/parts/lent.ics?${lent.lines.map((p) => `mark=${p.mark}`).join('&')}`;
</script>

<h2>
	{#each build.parts as part, p (part.mark)}{p ? ', ' : ''}<a class="link" href="/rack/{part.mark}"
			>{part.name}</a
		>{/each}
</h2>
<FindingFold findings={build.findings} />

{#if speaking.length}
	<table>
		<caption>Schools of bow length</caption>
		<tbody>
			{#each speaking as school (school.school)}
				<tr>
					<th scope="row">{school.title}</th>
					<td class={school.verdict}>{school.word}</td>
					<td class="quiet"><SaidText said={school.why} /></td>
				</tr>
			{/each}
		</tbody>
	</table>
{/if}

{#each build.lacks as lack, i (i)}<p class="lack"><SaidText said={lack} /></p>{/each}
<OptionList title="String" options={build.strings} bind:chosen={string} />
<OptionList title="Arrows" options={build.sets} bind:chosen={arrows} />

<h3>Take it out</h3>
{#if taken}
	<p>
		{#if taken.lines.some((p) => p.state === 'lent')}{taken.lines.map((p) => p.name).join(', ')}:
			lent to {archer.name}{back ? `, due back on ${back}` : ''}.{:else}Written up as a rig.{/if}
	</p>
	<p class="deeds">
		{#if taken.rig_id}<a class="act" href="/rig/{taken.rig_id}/draw">Open the rig</a>{/if}
		{#if back && lend}<a class="act plain" href={calendar(taken)} download>Day it is due back</a
			>{/if}
		{#if lend}<button class="act plain" disabled={busy} onclick={() => taken && bring(taken)}
				>Take it back</button
			>{/if}
	</p>
{:else if stops.length}
	<p class="quiet">Something stops this bow for {archer.name}: it is not taken out so.</p>
{:else if lent.length}
	<p class="quiet">{lent.map((p) => p.name).join(', ')}: lent already. Take it back first.</p>
{:else}
	<form onsubmit={take}>
		<label class="check"
			><input type="checkbox" bind:checked={lend} /> Lend it to {archer.name}</label
		>
		{#if lend}<label>Due back <input class="line-input" type="date" bind:value={back} /></label
			>{/if}
		<label class="check"
			><input type="checkbox" bind:checked={write} disabled={!whole} /> Write it up as a rig</label
		>
		{#if !whole}<p class="quiet">For a rig choose a string and arrows too.</p>{/if}
		{#if write && whole}<label
				>Called <input
					class="line-input"
					bind:value={name}
					maxlength="80"
					placeholder={called}
				/></label
			>{/if}
		{#if elsewhere.length}
			<p class="quiet">
				{elsewhere.map((p) => p.name).join(', ')}: on another rig too, until another is put on
				there.
			</p>
		{/if}
		<button class="act" disabled={busy || nothing}
			>Take out {parts.length === 1 ? 'the bow' : `these ${parts.length}`}</button
		>
	</form>
{/if}
{#if attempt.fault}<p class="fault" role="alert">{attempt.fault}</p>{/if}

<style>
	h2 {
		font-size: 1.2rem;
		line-height: 1.3;
		margin: 0.6rem 0 0.2rem;
	}
	h2 .link {
		font-family: inherit;
		min-height: var(--target);
	}
	h3 {
		font-family: var(--slab);
		font-size: 1.05rem;
		margin: 1.1rem 0 0.3rem;
		border-bottom: 1px solid var(--line);
	}
	table {
		width: 100%;
		margin: 0.7rem 0;
		font-size: 0.88rem;
	}
	caption {
		text-align: left;
		font-family: var(--slab);
		font-size: 1.05rem;
		font-weight: 600;
		border-bottom: 1px solid var(--line);
	}
	th,
	td {
		text-align: left;
		vertical-align: baseline;
		padding: 0.25rem 0.8rem 0.25rem 0;
		font-weight: 400;
		border-bottom: 1px solid var(--hair);
		line-height: 1.3;
	}
	th,
	.fits,
	.too_short,
	.too_long {
		white-space: nowrap;
		font-weight: 600;
	}
	.fits {
		color: var(--moss);
	}
	.too_short,
	.too_long {
		color: var(--ochre);
	}
	.lack {
		border-left: 3px solid var(--ochre);
		padding-left: 0.6rem;
		margin: 0.6rem 0;
		font-size: 0.93rem;
	}
	form {
		display: grid;
		gap: 0.4rem;
	}
	label:not(.check) {
		display: grid;
		grid-template-columns: 5.5rem 1fr;
		align-items: baseline;
		color: var(--quiet);
		padding-left: 1.6rem;
	}
	.check {
		display: flex;
		gap: 0.6rem;
		align-items: center;
		min-height: var(--target);
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin-top: 0.5rem;
	}
	.deeds a {
		text-decoration: none;
	}
	.fault {
		color: var(--brick);
	}
</style>
