import 'fake-indexeddb/auto';
import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import Devices from './Devices.svelte';

const device = (id: number, name: string, mine = false) => ({
	id,
	name,
	made_at: '2026-05-01T10:00:00+00:00',
	seen_at: '2026-05-02T10:00:00+00:00',
	mine
});
const here = {
	open: true,
	addresses: ['https://192.168.1.20:8730', 'https://bench.local:8730'],
	authority: false,
	devices: [device(1, 'Computer', true), device(2, 'Phone')]
};

function serve(answer: object = here) {
	const asked: { method: string; path: string; body: unknown }[] = [];
	vi.stubGlobal('fetch', async (request: Request) => {
		const { pathname: path } = new URL(request.url);
		const body = request.body ? await request.json() : null;
		asked.push({ method: request.method, path, body });
		const rows = ['101', '010', '111'];
		const scanned = here.addresses.map((at) => ({ address: `${at}/?invitation=ABC`, rows }));
		const told = path.endsWith('/invitations')
			? { code: 'ABC', lasts_s: 600, addresses: scanned }
			: request.method === 'DELETE'
				? { ...here, devices: [device(1, 'Computer', true)] }
				: answer;
		return new Response(JSON.stringify(told), { headers: { 'content-type': 'application/json' } });
	});
	render(Devices);
	return asked;
}
afterEach(() => vi.unstubAllGlobals());

describe('devices', () => {
	it('are called otherwise by keyboard: the focus goes to the field and comes back', async () => {
		const asked = serve();
		await fireEvent.click(await screen.findByRole('button', { name: /^Rename ?Phone/ }));
		const field = screen.getByLabelText('Name');
		expect(field).toHaveFocus();
		await fireEvent.input(field, { target: { value: 'Mina’s' } });
		await fireEvent.submit(field.closest('form')!);
		await waitFor(() =>
			expect(screen.getByRole('button', { name: /^Rename ?Phone/ })).toHaveFocus()
		);
		expect(asked.at(-1)).toMatchObject({ path: '/api/devices/2', body: { name: 'Mina’s' } });
	});

	it('are signed out at once, but this one only after it was said what that means', async () => {
		const asked = serve();
		await fireEvent.click(await screen.findByRole('button', { name: /^Sign out ?Computer/ }));
		expect(await screen.findByText(/opens nothing before it is invited/)).toBeInTheDocument();
		expect(asked.filter((one) => one.method === 'DELETE')).toEqual([]);
		await fireEvent.click(screen.getByRole('button', { name: 'Stay' }));
		await fireEvent.click(screen.getByRole('button', { name: /^Sign out ?Phone/ }));
		await waitFor(() =>
			expect(screen.queryByRole('button', { name: /^Sign out ?Phone/ })).toBeNull()
		);
		expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: '/api/devices/2' });
	});

	it('are invited by a code to scan and a word to type, for the address that is chosen', async () => {
		serve();
		await fireEvent.click(await screen.findByRole('button', { name: 'Let a device in' }));
		expect(await screen.findByText('ABC')).toBeInTheDocument();
		const code = screen.getByRole('img');
		expect(code.querySelector('path')?.getAttribute('d')).toMatch(/^M0 0h1v1h-1zM2 0h1v1h-1zM1 1/);
		await fireEvent.change(screen.getByLabelText('Address'), { target: { value: '1' } });
		expect(code.getAttribute('aria-label')).toContain('bench.local');
	});

	it('are none where this machine alone is answered, and what lets them in is said', async () => {
		serve({ ...here, open: false, addresses: [], devices: [] });
		expect(await screen.findByText('--host 0.0.0.0')).toBeInTheDocument();
		expect(screen.queryByRole('button')).toBeNull();
	});
});
