<script lang="ts">
	import { tick } from 'svelte';
	import { api, told, type Schemas } from '$lib/api/client';
	import { Attempt } from '$lib/bench/attempt.svelte';
	import { day } from '$lib/format/day';
	import { shelf } from '$lib/range/shelf';
	import { leaveNothing } from './signOut';

	/** Phones and tablets that are let in: listed, named, invited, signed out; and how they trust it. */
	type Invitation = Schemas['InvitationView'];
	let found = $state<Schemas['DevicesView'] | null>(null);
	let invitation = $state.raw<Invitation | null>(null);
	let address = $state(0);
	let renamed = $state<{ id: number; name: string } | null>(null);
	/** One's own device is signed out only after it was said what waits on it. */
	let leaving = $state<{ id: number; waiting: number } | null>(null);
	let list = $state<HTMLElement>();
	const attempt = new Attempt();
	const code = $derived(invitation?.addresses[address] ?? null);
	const secure = $derived(found?.addresses[0]?.startsWith('https:') ?? false);

	async function look(): Promise<void> {
		found = await told(api.GET('/api/devices'));
	}
	void attempt.run(look);

	const invite = () =>
		attempt.run(async () => {
			invitation = await told(api.POST('/api/devices/invitations'));
		});
	/** Its button has the focus again, whether it is called otherwise now or not. */
	async function named(id: number): Promise<void> {
		renamed = null;
		await tick();
		list?.querySelector<HTMLElement>(`[data-device="${id}"]`)?.focus();
	}
	const rename = (event: Event) => {
		event.preventDefault();
		void attempt.run(async () => {
			if (!renamed) return;
			const { id, name } = renamed;
			const at = { params: { path: { id } }, body: { name } };
			found = await told(api.PATCH('/api/devices/{id}', at));
			await named(id);
		});
	};
	async function leave(device: { id: number; mine: boolean }): Promise<void> {
		if (device.mine && !leaving) {
			const waiting = await (await shelf()).count().catch(() => 0);
			leaving = { id: device.id, waiting };
			return;
		}
		leaving = null;
		await attempt.run(async () => {
			const at = { params: { path: { id: device.id } } };
			found = await told(api.DELETE('/api/devices/{id}', at));
			if (!device.mine) return;
			await leaveNothing();
			location.assign('/');
		});
	}
	/** The dark squares of a code, as one path. */
	const squares = (rows: string[]): string =>
		rows
			.flatMap((row, y) => [...row].map((dark, x) => (dark === '1' ? `M${x} ${y}h1v1h-1z` : '')))
			.join('');
</script>

<h3>Phones and tablets</h3>
{#if attempt.fault}<p class="fault" role="alert">{attempt.fault}</p>{/if}
{#if found && !found.open}
	<p>
		Only this machine is answered. To let others in, start Lyrandis with
		<code>--host 0.0.0.0</code>; an invitation is then printed and shown here.
	</p>
{:else if found}
	<ul bind:this={list}>
		{#each found.devices as device (device.id)}
			<li>
				{#if renamed?.id === device.id}
					<form onsubmit={rename}>
						<input
							class="line-input"
							bind:value={renamed.name}
							{@attach (field) => field.focus()}
							maxlength="80"
							required
							aria-label="Name"
						/>
						<button class="link">Keep</button>
						<button type="button" class="link" onclick={() => void named(device.id)}
							>Leave it</button
						>
					</form>
				{:else}
					<span>
						{device.name}{device.mine ? ', this one' : ''}
						<span class="quiet">since {day(device.made_at)}, seen {day(device.seen_at)}</span>
					</span>
					<span class="deeds">
						<button
							class="link"
							data-device={device.id}
							onclick={() => (renamed = { id: device.id, name: device.name })}
							>Rename<span class="sr-only"> {device.name}</span></button
						>
						<button class="link" onclick={() => leave(device)}
							>Sign out<span class="sr-only"> {device.name}</span></button
						>
					</span>
				{/if}
			</li>
		{:else}
			<li class="quiet">No device has a place of its own yet.</li>
		{/each}
	</ul>
	{#if leaving}
		{@const gone = leaving.id}
		<div role="alert" class="leaving">
			<p>
				Signed out, this device opens nothing before it is invited again; what is typed on it and
				not logged is dropped.
				{#if leaving.waiting}<strong
						>{leaving.waiting === 1 ? 'One act waits' : `${leaving.waiting} acts wait`} here to be handed
						over:</strong
					>
					do that first, <a class="link" href="/range">at the range</a>. They stay on this device.{/if}
			</p>
			<p class="deeds">
				<button class="act" onclick={() => leave({ id: gone, mine: true })}
					>Sign this device out</button
				>
				<button class="act plain" onclick={() => (leaving = null)}>Stay</button>
			</p>
		</div>
	{/if}
	{#if code && invitation}
		<div class="invitation">
			<svg
				viewBox="0 0 {code.rows.length} {code.rows.length}"
				role="img"
				aria-label="Code to scan: {code.address}"
			>
				<rect width="100%" height="100%" fill="#fff" />
				<path d={squares(code.rows)} fill="#000" />
			</svg>
			<div>
				<p>Scan it with the other device, or open</p>
				{#if invitation.addresses.length > 1}
					<select class="line-input" bind:value={address} aria-label="Address">
						{#each invitation.addresses as one, i (one.address)}
							<option value={i}>{one.address.split('/?')[0]}</option>
						{/each}
					</select>
				{:else}<p>{code.address.split('/?')[0]}</p>{/if}
				<p>and type <strong class="code">{invitation.code}</strong></p>
				<p class="quiet">It lets one device in, once, within ten minutes.</p>
			</div>
		</div>
	{/if}
	<p class="deeds">
		<button class="act plain" onclick={invite} disabled={attempt.busy}
			>{invitation ? 'Another invitation' : 'Let a device in'}</button
		>
	</p>
	<h3>Out of reach of this machine</h3>
	{#if found.authority}
		<p>
			A phone opens the page for the range out of reach once it trusts this machine:
			<a class="link" href="/api/devices/authority" download>the authority’s certificate</a> is installed
			on it, once. A warning that was only clicked through is not enough.
		</p>
		<div class="kinds">
			<section aria-label="Phones that install profiles">
				<h4>Where settings speak of profiles</h4>
				<ol>
					<li>Open the certificate there and allow the profile.</li>
					<li>Settings, General, VPN &amp; Device Management: install it.</li>
					<li>Settings, General, About, Certificate Trust Settings: switch it on.</li>
					<li>Open an invitation again, and “At the range” once.</li>
				</ol>
			</section>
			<section aria-label="Phones that install certificates">
				<h4>Where settings speak of credentials</h4>
				<ol>
					<li>Open the certificate there, so that it is downloaded.</li>
					<li>Settings, Security, Encryption &amp; credentials, Install a certificate.</li>
					<li>Choose “CA certificate”, accept the warning, choose the file.</li>
					<li>Open an invitation again, and “At the range” once.</li>
				</ol>
			</section>
		</div>
	{:else if !secure}
		<p>
			Over http a phone keeps no page. Run <code>lyrandis certificate</code> once where Lyrandis is started,
			and start it again: it is then reached by https, and says here how phones trust it.
		</p>
	{/if}
	<p class="quiet">
		Without it all pages work as long as this machine is in reach, and what is logged at the range
		waits as long as its page stays open.
	</p>
{/if}

<style>
	h3 {
		font-size: 1.15rem;
		margin: 1.2rem 0 0.3rem;
	}
	h4 {
		font-size: 1rem;
		margin: 0.3rem 0;
	}
	p {
		margin: 0.5rem 0;
		max-width: 34rem;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0;
		border-top: 1px solid var(--line);
	}
	ul li {
		border-bottom: 1px solid var(--hair);
	}
	ul li,
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1rem;
		align-items: center;
		justify-content: space-between;
		min-height: var(--target);
	}
	form {
		width: 100%;
		justify-content: start;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
	}
	.fault {
		color: var(--brick);
	}
	.leaving {
		border-left: 4px solid var(--ochre);
		padding-left: 0.8rem;
	}
	.invitation {
		display: grid;
		grid-template-columns: minmax(9rem, 13rem) 1fr;
		gap: 1.2rem;
		align-items: center;
		margin: 0.8rem 0;
	}
	.invitation svg {
		width: 100%;
		shape-rendering: crispEdges;
	}
	.code {
		font-family: var(--mono);
		font-size: 1.3rem;
		letter-spacing: 0.08em;
	}
	.kinds {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0 1.6rem;
		font-size: 0.92rem;
	}
	ol {
		list-style: decimal;
		padding-left: 1.2rem;
		margin: 0;
	}
	@media (max-width: 560px) {
		.invitation,
		.kinds {
			grid-template-columns: 1fr;
		}
		.invitation svg {
			max-width: 13rem;
		}
	}
</style>
