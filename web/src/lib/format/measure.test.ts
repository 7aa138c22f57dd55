import { describe, expect, it } from 'vitest';
import written from '../../../../tests/format_cases.json';
import { convert, exactly, plain, setNumber, setSpread, type Unit } from './measure';

interface Case {
	value: number;
	quantity: string;
	unit: string;
	spread: number | null;
	text: string;
}
const cases: Case[] = written;

function unit(id: string, per_base: number, label: string, decimals = 1, denominator = 0): Unit {
	const one = id === 'turns' ? 'turn' : '';
	return { id, dimension: 'any', per_base, label, decimals, denominator, one };
}
const units: Record<string, Unit> = {
	in_8: unit('in_8', 0.0254, 'in', 1, 8),
	in_16: unit('in_16', 0.0254, 'in', 1, 16),
	mm: unit('mm', 0.001, 'mm', 0),
	lb: unit('lb', 4.4482216152605, 'lb'),
	kg: unit('kg', 9.80665, 'kg'),
	g: unit('g', 0.001, 'g'),
	deg: unit('deg', 1, '°', 0),
	pct: unit('pct', 1, '%', 0),
	spine: unit('spine', 1, '', 0),
	yd: unit('yd', 0.9144, 'yd'),
	m: unit('m', 1, 'm'),
	in: unit('in', 0.0254, 'in', 2),
	cm: unit('cm', 0.01, 'cm'),
	gr: unit('gr', 0.00006479891, 'gr', 0),
	dB: unit('dB', 1, 'dB'),
	lb_in: unit('lb_in', 1, 'lb/in', 2),
	turns: unit('turns', 1, 'turns', 1, 4)
};
const stored: Record<string, Unit> = {
	draw: unit('in', 0.0254, 'in', 2),
	brace: unit('in', 0.0254, 'in', 2),
	bow_length: unit('in', 0.0254, 'in', 2),
	level: unit('dB', 1, 'dB'),
	slope: unit('lb_in', 1, 'lb/in', 2),
	turns: unit('turns', 1, 'turns', 1, 4),
	spot: unit('cm', 0.01, 'cm'),
	weight: units.lb!,
	mass: unit('gr', 0.00006479891, 'gr', 0),
	angle: units.deg!,
	percent: units.pct!,
	spine: units.spine!,
	distance: units.m!
};

/** As Reference.valueText puts it together. */
function write(c: Case): string {
	const shown = units[c.unit]!;
	const from = stored[c.quantity]!;
	const base = setNumber(convert(c.value, from, shown), shown);
	const spread =
		c.spread === null ? '' : ` ± ${plain(setSpread(convert(c.spread, from, shown), shown))}`;
	const gap = base.unit === '' || base.unit === '°' || base.unit === '%' ? '' : ' ';
	return `${plain(base)}${spread}${gap}${base.unit}`;
}

describe('numbers are written as the core writes them', () => {
	it.each(cases)('$value $unit is $text', (c) => expect(write(c)).toBe(c.text));
});

describe('setting a number', () => {
	it('keeps whole, fraction and unit apart', () => {
		expect(setNumber(2.375, units.in_8!)).toEqual({ whole: '2', fraction: '3/8', unit: 'in' });
		expect(setNumber(-0.25, units.in_8!)).toEqual({ whole: '−', fraction: '1/4', unit: 'in' });
	});

	it('never shows a spread as nothing', () => {
		expect(plain(setSpread(0.001, units.in_16!))).toBe('1/16');
	});

	it('does not write minus nothing', () => {
		expect(setNumber(-0.001, units.m!).whole).toBe('0.0');
		expect(plain(setNumber(-0.01, units.in_8!))).toBe('0');
	});
});

it('a limit is written without noughts after the point', () => {
	expect(['150.0 lb', '0.50', '12.25 in', '100 mm', '−5.0'].map(exactly)).toEqual([
		'150 lb',
		'0.5',
		'12.25 in',
		'100 mm',
		'−5'
	]);
});
