<script lang="ts">
	import { ApiProblem } from '$lib/api/client';
	import { useBench } from '$lib/bench/bench.svelte';
	import { One } from '$lib/bench/one.svelte';
	import { reference } from '$lib/bench/reference.svelte';
	import { useDraft } from '$lib/drafts/draft.svelte';
	import SettlingPlate from '$lib/plates/SettlingPlate.svelte';
	import TrialList from './TrialList.svelte';

	/** A new string's brace height over the hours it stood braced. */
	const bench = useBench();
	const one = new One();
	const settling = $derived(bench().bench.settling);
	/** Since it was put on [h], as a reading of now is logged where no hours are typed. */
	const sinceThen = $derived(
		settling?.hours_now == null ? null : Math.max(Math.round(settling.hours_now * 10) / 10, 0.1)
	);
	const now = $derived(bench().bench.brace?.brace_in ?? null);
	const natural = $derived(bench().value('string.material') === 'natural');
	let brace = $state('');
	let hours = $state('');
	let problem = $state<string | null>(null);

	useDraft(
		'settling',
		() => ({ brace, hours }),
		(was) => ({ brace, hours } = was)
	);

	async function log(fresh: boolean): Promise<void> {
		problem = null;
		try {
			const braced = fresh
				? 0
				: hours.trim() === '' && sinceThen !== null
					? sinceThen
					: await reference.read(hours, 'hours');
			const trial = {
				kind: 'settling' as const,
				hours: braced,
				brace_height_in: await reference.read(brace, 'brace'),
				reference: bench().bench.rig.bow.brace_reference!,
				day: '',
				notes: ''
			};
			if (await bench().log('string', trial)) brace = hours = '';
			else problem = bench().fault;
		} catch (error) {
			problem = (error as ApiProblem).message;
		}
	}
</script>

{#if natural}
	<p class="quiet">
		Natural fibre moves with the weather and does not settle for good: keep a tied, adjustable end
		and measure the brace height each time.
	</p>
{:else}
	{#if settling}
		<SettlingPlate {settling} />
	{/if}
	<form class="readings" onsubmit={one.on(() => log(!settling))}>
		<div class="line">
			<strong>Settling</strong>
			<input
				class="line-input num"
				bind:value={brace}
				placeholder={now === null ? 'brace' : reference.text(now, 'brace', false)}
				aria-label="Brace of the new string"
			/>
			<span class="quiet">{reference.unit('brace').label}</span>
			{#if settling}
				<span class="quiet">after</span>
				<input
					class="line-input num"
					bind:value={hours}
					placeholder={sinceThen === null ? 'hours' : sinceThen.toFixed(1)}
					aria-label="Hours braced"
				/>
				<span class="quiet">h braced</span>
				<button class="act" disabled={bench().busy || !brace.trim()}>Log this reading</button>
			{/if}
			<button
				type="button"
				class:act={!settling}
				class:link={settling}
				disabled={bench().busy || !brace.trim()}
				onclick={one.on(() => log(true))}>Braced just now</button
			>
		</div>
		<p class="quiet" class:wrong={problem} aria-live="polite">
			{problem ??
				'Brace the new string, measure at once and type what you read, then again after some hours and tomorrow morning. The schedule reminds you.'}
		</p>
	</form>
	<TrialList kinds={['settling']} empty="No new string was followed here yet." />
{/if}
