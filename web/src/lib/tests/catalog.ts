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
	words: {},
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
		h: unit('h', 'time', 3600, 'h'),
		deg: unit('deg', 'angle', 1, '°', 0),
		fps: unit('fps', 'speed', 0.3048, 'ft/s', 0),
		turns: unit('turns', 'ratio', 1, 'turns', 2),
		weeks: unit('weeks', 'ratio', 1, 'weeks', 0),
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
		hours: { id: 'hours', title: 'Hours', stored: 'h', choices: ['h'] },
		angle: { id: 'angle', title: 'Angle', stored: 'deg', choices: ['deg'] },
		speed: { id: 'speed', title: 'Speed', stored: 'fps', choices: ['fps'] },
		turns: { id: 'turns', title: 'Turns', stored: 'turns', choices: ['turns'] },
		weeks: { id: 'weeks', title: 'Weeks', stored: 'weeks', choices: ['weeks'] },
		small: { id: 'small', title: 'Small', stored: 'm', choices: ['m'] },
		bow_length: { id: 'bow_length', title: 'Bow', stored: 'in', choices: ['in_8'] },
		count: { id: 'count', title: 'Count', stored: 'count', choices: ['count'] }
	},
	fields: {
		'archer.draw_length_in': field('archer.draw_length_in', 'Draw length', 'draw', {
			low: 18,
			high: 34
		}),
		'archer.release': field('archer.release', 'Release', null, {
			words: { split: 'split finger', three_under: 'three under', thumb: 'thumb' }
		}),
		'archer.draw_method': field('archer.draw_method', 'Measured by', null, {
			words: { tape: 'tape', arm_span: 'arm span', marked_arrow: 'marked arrow' }
		}),
		'string.strands': field('string.strands', 'Strands', 'count', { low: 4, high: 40 }),
		use: field('use', 'Used for', null, { words: { range: 'range', woodland: 'woodland' } })
	},
	stations: [
		{ id: 'draw', title: 'Draw', question: 'How far do you draw?', settings: [] },
		{ id: 'crawls', title: 'Aim', question: 'Where do you aim?', settings: [] }
	],
	forms: {},
	trials: { hold: 'Holds', draw: 'Draws', brace: 'Brace trials' },
	schools: {},
	verdicts: {},
	quiet: [
		{ id: 'loose', title: 'Loose parts', do: 'Tighten.', why: 'Rattles.', station: 'assembly' },
		{ id: 'string', title: 'The string', do: 'Look.', why: 'Slaps.', station: 'string' }
	],
	inspection: [
		{ id: 'cracks', title: 'Cracks', look: 'Tilt it.', means: 'Overdrawn.', stop: true },
		{ id: 'string', title: 'String', look: 'Feel it.', means: 'Worn.', stop: false }
	]
} as unknown as Catalog;
