import type { Catalog } from '$lib/api/client';

const unit = (
	id: string,
	dimension: string,
	per_base: number,
	label: string,
	decimals = 1,
	denominator = 0
) => ({ id, dimension, per_base, label, decimals, denominator });

const field = (path: string, title: string, quantity: string | null, more = {}) => ({
	path,
	title,
	help: '',
	quantity,
	low: null,
	high: null,
	choices: [],
	optional: false,
	...more
});

/** A small catalog for tests: a few units, quantities, fields and two stations. */
export const catalog = {
	units: {
		in_8: unit('in_8', 'length', 0.0254, 'in', 1, 8),
		in: unit('in', 'length', 0.0254, 'in', 2),
		mm: unit('mm', 'length', 0.001, 'mm', 0),
		m: unit('m', 'length', 1, 'm'),
		yd: unit('yd', 'length', 0.9144, 'yd'),
		lb: unit('lb', 'force', 4.4482216152605, 'lb'),
		dB: unit('dB', 'level', 1, 'dB'),
		s: unit('s', 'time', 1, 's'),
		count: unit('count', 'ratio', 1, '', 0)
	},
	quantities: {
		draw: { id: 'draw', title: 'Draw', stored: 'in', choices: ['in_8', 'mm'] },
		weight: { id: 'weight', title: 'Weight', stored: 'lb', choices: ['lb'] },
		distance: { id: 'distance', title: 'Distance', stored: 'm', choices: ['m', 'yd'] },
		seconds: { id: 'seconds', title: 'Time', stored: 's', choices: ['s'] },
		brace: { id: 'brace', title: 'Brace', stored: 'in', choices: ['in_8', 'mm'] },
		level: { id: 'level', title: 'Level', stored: 'dB', choices: ['dB'] },
		spot: { id: 'spot', title: 'Spot', stored: 'm', choices: ['m'] },
		count: { id: 'count', title: 'Count', stored: 'count', choices: ['count'] }
	},
	fields: {
		'archer.draw_length_in': field('archer.draw_length_in', 'Draw length', 'draw', {
			low: 18,
			high: 34
		}),
		'archer.release': field('archer.release', 'Release', null),
		'string.strands': field('string.strands', 'Strands', 'count', { low: 4, high: 40 }),
		use: field('use', 'Used for', null)
	},
	stations: [
		{ id: 'draw', title: 'Draw', question: 'How far do you draw?', settings: [] },
		{ id: 'crawls', title: 'Crawls', question: 'How far down the string?', settings: [] }
	],
	forms: {},
	inspection: [
		{ id: 'cracks', title: 'Cracks', look: 'Tilt it.', means: 'Overdrawn.', stop: true },
		{ id: 'string', title: 'String', look: 'Feel it.', means: 'Worn.', stop: false }
	]
} as unknown as Catalog;
