import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { render, screen } from '@testing-library/svelte';
import type { Catalog } from '$lib/api/client';
import SaidText from '$lib/format/SaidText.svelte';
import { catalog as plain } from '$lib/tests/catalog';
import { serve } from '$lib/tests/fake';
import { reference } from './reference.svelte';

const unit = (id: string, per_base: number, label: string, decimals: number, denominator = 0) => ({
	id,
	dimension: 'any',
	per_base,
	label,
	decimals,
	denominator
});

beforeEach(() => {
	reference.catalog = {
		units: {
			in_8: unit('in_8', 0.0254, 'in', 1, 8),
			in: unit('in', 0.0254, 'in', 2),
			mm: unit('mm', 0.001, 'mm', 0),
			deg: unit('deg', 1, '°', 0)
		},
		quantities: {
			draw: { id: 'draw', title: 'Draw', stored: 'in', choices: ['in_8', 'mm'] },
			angle: { id: 'angle', title: 'Angle', stored: 'deg', choices: ['deg'] }
		}
	} as unknown as Catalog;
	reference.units = {};
});
afterEach(() => vi.unstubAllGlobals());

const said = {
	text: 'A draw of {draw} at {angle}.',
	values: {
		draw: { value: 28.75, quantity: 'draw', plus_minus: 0.25, exact: false },
		angle: { value: 130.2, quantity: 'angle', plus_minus: null, exact: false }
	},
	words: {}
};

describe('sentences in the archer’s units', () => {
	it('as plain text', () => {
		expect(reference.said(said)).toBe('A draw of 28 3/4 ± 1/4 in at 130°.');
		reference.units = { draw: 'mm' };
		expect(reference.said(said)).toBe('A draw of 730 ± 6 mm at 130°.');
	});

	it('as marked-up text, its values strong', () => {
		render(SaidText, { said, strong: true });
		expect(screen.getAllByText(/28|130/, { selector: 'strong *' }).length).toBeGreaterThan(0);
		expect(document.body.textContent).toContain('A draw of');
	});

	it('takes the archer’s own words as they are', () => {
		const words = { why: 'as {draw} said <b>' };
		const spoken = { ...said, text: 'Set to {draw}, because: {why}.', words };
		expect(reference.said(spoken)).toBe('Set to 28 3/4 ± 1/4 in, because: as {draw} said <b>.');
		render(SaidText, { said: spoken });
		expect(document.body.textContent).toContain('because: as {draw} said <b>.');
	});

	it('goes to the shown unit and back', () => {
		reference.units = { draw: 'mm' };
		expect(reference.inShown(28, 'draw')).toBeCloseTo(711.2);
		expect(reference.toStored(711.2, 'draw')).toBeCloseTo(28);
	});
});

describe('preferences', () => {
	it('are only taken on when the server took them', async () => {
		// Another window chose yards meanwhile: it comes along.
		const kept = { units: { draw: 'mm', distance: 'yd' }, theme: 'system' };
		const answers = [Response.json(kept), Response.json({}, { status: 422 })];
		const sent: unknown[] = [];
		vi.stubGlobal('fetch', async (request: Request) => {
			sent.push(request.method, await request.json());
			return answers.shift();
		});
		await reference.prefer({ units: { draw: 'mm' } });
		expect(sent).toEqual(['PATCH', { units: { draw: 'mm' }, theme: null }]);
		expect(reference.units).toEqual({ draw: 'mm', distance: 'yd' });
		await expect(reference.prefer({ theme: 'dark' })).rejects.toThrow();
		expect(reference.theme).toBe('system');
	});
});

describe('what is typed', () => {
	it('is read one by one, and waited for', async () => {
		reference.catalog = plain;
		reference.units = {};
		const server = serve();
		expect(await reference.readAll(' 61 62;63 ', 'level')).toEqual([61, 62, 63]);
		expect(await reference.readAll('  ', 'level')).toEqual([]);
		await expect(reference.read('loud', 'level')).rejects.toThrow('is not a measurement');
		let taken = 0;
		void reference.read('28', 'draw').then((value) => (taken = value));
		await reference.settled();
		expect(taken).toBe(28);
		expect(server.asked.map((a) => a.body.text)).toEqual([' 61 62;63 ', 'loud', '28']);
		vi.unstubAllGlobals();
	});

	it('that cannot be read holds nobody up for good', async () => {
		reference.catalog = plain;
		serve();
		void reference.read('nonsense', 'draw').catch(() => {});
		await reference.settled();
		await reference.settled();
		vi.unstubAllGlobals();
	});
});
