<script lang="ts">
	import { reference } from '$lib/bench/reference.svelte';
	import SaidText from '$lib/format/SaidText.svelte';
	import type { Readiness } from './here';
	import type { Outbox } from './outbox.svelte';
	import WaitingElsewhere from './WaitingElsewhere.svelte';

	/** What was logged here: what waits, what is in the logbook, and what asks for a choice. */
	interface Props {
		id: number;
		outbox: Outbox;
		readiness: Readiness;
		/** Puts the page on the home screen, where the browser offers it. */
		oninstall: (() => void) | null;
	}
	let { id, outbox, readiness, oninstall }: Props = $props();
	const time = (at: string) =>
		new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
	const between = $derived(outbox.meanwhile);
	const more = $derived(
		between ? between.seq - (outbox.waiting[0]?.body.seq ?? 0) - between.lines.length : 0
	);
</script>

{#if between}
	<section class="between" aria-label="Kept meanwhile">
		<h2>Kept meanwhile</h2>
		<p>While this waited here, the rig was changed elsewhere. Nothing was overwritten.</p>
		<ul>
			{#each between.lines as line (line.seq)}<li><SaidText said={line.said} strong /></li>{/each}
			{#if more > 0}<li class="quiet">and {more} earlier, in the logbook</li>{/if}
			{#if !between.lines.length}<li>
					The rig's data was put back to an earlier state: entry {between.seq} is its latest.
				</li>{/if}
		</ul>
		<p>
			If the bow was set otherwise than the logbook now says, leave what was shot with it out below;
			it can be taken in again.
		</p>
		<button class="act" onclick={() => outbox.onTop()}>Log mine on top</button>
	</section>
{/if}

<WaitingElsewhere />
<h2>Waiting here</h2>
<ul>
	{#each outbox.made as made (made.mark)}
		<li class:left={made.left}>
			<span class="num quiet">{time(made.at)}</span>
			<span class="said"
				>{made.said}
				{#if made.refused}<span class="wrong">Refused: {made.refused}</span>{/if}
				{#if made.left}<span class="quiet">left out</span>{/if}</span
			>
			<span class="deeds">
				{#if made.other_data && made.body.strikes == null}
					<button class="link" onclick={() => outbox.onThis(made.mark)}>Log it here</button>
				{/if}
				<button class="link" onclick={() => outbox.leave(made.mark, !made.left)}
					>{made.left ? 'Take in again' : 'Leave out'}</button
				>
				{#if made.left}
					<button class="link" onclick={() => outbox.forget(made.mark)}>Throw away</button>
				{/if}
			</span>
		</li>
	{:else}
		<li class="quiet">
			{outbox.unread.length
				? 'Nothing else waits.'
				: 'Nothing waits: all that was logged is in the logbook.'}
		</li>
	{/each}
</ul>
{#if outbox.unread.length}
	<h2>Cannot be read</h2>
	<p>Something logged here lies in this browser damaged. Copy what it says, and log it again.</p>
	<ul>
		{#each outbox.unread as one (one.place)}
			<li class="unread">
				<textarea readonly rows="3" aria-label="As it lies there" value={one.text}></textarea>
				<button class="link" onclick={() => outbox.drop(one)}>Throw away</button>
			</li>
		{/each}
	</ul>
{/if}
{#if outbox.waiting.length && !between}
	<button class="act plain" onclick={() => void outbox.hand()}>Hand over now</button>
{/if}
{#if outbox.fault}<p class="wrong" role="alert">{outbox.fault} What waits here is kept.</p>{/if}
{#if outbox.oldPlace}
	<p class="quiet">
		This browser refuses its database: what waits is kept in its small storage instead, which holds
		some hundred acts.
	</p>
{/if}

{#if outbox.handed.length}
	<h2>In the logbook</h2>
	<ul>
		{#each [...outbox.handed].reverse() as handed (handed.made.mark)}
			<li>
				<span class="num quiet">{time(handed.made.at)}</span>
				<span class="said">{handed.made.said}</span>
				<span class="deeds">
					{#if handed.back}
						<button class="link" onclick={() => outbox.takeBack(handed)}>Take back</button>
					{/if}
				</span>
			</li>
		{/each}
	</ul>
{/if}

<h2>This page</h2>
<p>
	{#if readiness === 'ready'}
		It opens here without the server: card, ends, brace and reads work out of reach, and what you
		log is handed over later.
	{:else if readiness === 'asking'}
		Being kept for out of reach …
	{:else if readiness === 'late'}
		It could not be kept in time: until it is, it works out of reach only while it stays open. Open
		it once more, with the server in reach, before you leave.
	{:else}
		It works out of reach only while it stays open. To open without the server its address must be a
		secure one (https) that this device trusts, or this machine's own; a warning that was only
		clicked through is not enough. “All data” says how.
	{/if}
</p>
{#if oninstall}
	<button class="act plain" onclick={oninstall}>Put it on the home screen</button>
{:else if readiness === 'ready'}
	<p class="quiet">
		On the home screen: the browser's own menu, “Install” or “Add to home screen”. It opens at the
		rigs taken to the range.
	</p>
{/if}
<p class="links">
	<a class="link" href="/range">Rigs at the range</a>
	<a class="link" href="/rig/{id}/crawls">The whole rig</a>
	<a class="link" href="/rig/{id}/keep">Logbook</a>
</p>
<p class="quiet">
	Distances in {reference.unit('distance').label}, crawls in {reference.unit('crawl').label}. The
	range's rules and its officer come first; a damaged arrow or a frayed string is not shot.
</p>

<style>
	li.unread {
		display: grid;
		grid-template-columns: 1fr;
		gap: 0.3rem;
	}
	.unread textarea {
		width: 100%;
		background: transparent;
		color: inherit;
		border: 1px solid var(--line);
		font: inherit;
	}
	h2 {
		font-size: 1.15rem;
		margin: 1.1rem 0 0.3rem;
	}
	h2:first-child {
		margin-top: 0;
	}
	ul {
		list-style: none;
		margin: 0 0 0.6rem;
		padding: 0;
		border-top: 1px solid var(--line);
	}
	li {
		display: grid;
		grid-template-columns: auto 1fr auto;
		gap: 0 0.7rem;
		align-items: center;
		min-height: 48px;
		border-bottom: 1px solid var(--line);
		line-height: 1.25;
	}
	.between li,
	li.quiet {
		display: block;
		padding: 0.6rem 0;
	}
	.left .said {
		text-decoration: line-through;
	}
	.left .said .quiet {
		display: inline-block;
		text-decoration: none;
	}
	.wrong {
		color: var(--brick);
		display: block;
	}
	.between {
		border-left: 4px solid var(--ochre);
		padding-left: 0.8rem;
		margin-bottom: 1rem;
	}
	.deeds {
		display: flex;
		gap: 0.8rem;
	}
	p {
		margin: 0.4rem 0;
	}
	.links {
		display: flex;
		flex-wrap: wrap;
		gap: 0 1.4rem;
	}
</style>
