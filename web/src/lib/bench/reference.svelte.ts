import { api, speakBy, told, type Catalog, type Said, type Value } from '$lib/api/client';
import {
	convert,
	exactly,
	plain,
	setNumber,
	setSpread,
	type Shown as SetNumber,
	type Unit
} from '$lib/format/measure';

/** A number to be shown, with or without its ±. */
export type Shown = Omit<Value, 'plus_minus' | 'exact'> & Partial<Value>;
export type Theme = 'system' | 'light' | 'dark';

/** What does not change with the rig: units, fields, route, and the archer's preferences. */
class Reference {
	catalog = $state<Catalog | null>(null);
	units = $state<Record<string, string>>({});
	theme = $state<Theme>('system');

	async load(): Promise<void> {
		const [catalog, preferences] = await Promise.all([
			told(api.GET('/api/catalog')),
			told(api.GET('/api/preferences'))
		]);
		this.catalog = catalog;
		this.units = preferences.units ?? {};
		this.theme = preferences.theme ?? 'system';
	}

	/** Change some preferences; what another window changed meanwhile stays, and comes along. */
	async prefer(change: {
		units?: Record<string, string | null>;
		theme?: Theme | null;
	}): Promise<void> {
		const body = { units: change.units ?? {}, theme: change.theme ?? null };
		const kept = await told(api.PATCH('/api/preferences', { body }));
		this.units = kept.units;
		this.theme = kept.theme;
	}

	/** The word for an option of a setting. */
	word(path: string, value: unknown): string {
		return this.catalog?.fields[path]?.words[String(value)] ?? String(value);
	}

	/** The unit a quantity is shown in. */
	unit(quantity: string): Unit {
		const kind = this.catalog?.quantities[quantity];
		const id = this.units[quantity] ?? kind?.choices[0] ?? '';
		return this.catalog?.units[id] as Unit;
	}

	private reading = new Set<Promise<unknown>>();

	/** Something typed as people say it, as a value in the quantity's stored unit. */
	async read(text: string, quantity: string): Promise<number> {
		const body = { text, quantity, unit: this.unit(quantity).id };
		const asked = told(api.POST('/api/units/parse', { body }));
		this.reading.add(asked);
		try {
			return (await asked).value;
		} finally {
			this.reading.delete(asked);
		}
	}

	/** Levels or the like, typed one after another: between spaces, commas or semicolons. */
	async readAll(text: string, quantity: string): Promise<number[]> {
		if (!text.trim()) return [];
		const body = { text, quantity, unit: this.unit(quantity).id };
		const asked = told(api.POST('/api/units/parse-list', { body }));
		this.reading.add(asked);
		try {
			return (await asked).values;
		} finally {
			this.reading.delete(asked);
		}
	}

	/** Once everything typed so far has been read, whatever came of it. */
	async settled(): Promise<void> {
		await Promise.allSettled([...this.reading]);
		// Whoever asked takes the answer in before this goes on.
		await new Promise((done) => setTimeout(done));
	}

	private stored(quantity: string): Unit {
		const catalog = this.catalog as Catalog;
		return catalog.units[catalog.quantities[quantity]?.stored ?? ''] as Unit;
	}

	/** A stored value as a number of the shown unit. */
	inShown(value: number, quantity: string): number {
		return convert(value, this.stored(quantity), this.unit(quantity));
	}

	/** A number of the shown unit as a stored value. */
	toStored(value: number, quantity: string): number {
		return convert(value, this.unit(quantity), this.stored(quantity));
	}

	shown(value: number, quantity: string): SetNumber {
		return setNumber(this.inShown(value, quantity), this.unit(quantity));
	}

	spread(value: number, quantity: string): SetNumber {
		return setSpread(this.inShown(value, quantity), this.unit(quantity));
	}

	/** A value as text with its unit: for labels in drawings and for reading aloud. */
	text(value: number, quantity: string, withUnit = true): string {
		const shown = this.shown(value, quantity);
		const gap = shown.unit === '°' || shown.unit === '%' ? '' : ' ';
		return withUnit && shown.unit ? `${plain(shown)}${gap}${shown.unit}` : plain(shown);
	}

	valueText(value: Shown): string {
		if (value.exact) return exactly(this.text(value.value, value.quantity));
		const base = this.text(value.value, value.quantity, value.plus_minus == null);
		if (value.plus_minus == null) return base;
		const spread = this.spread(value.plus_minus, value.quantity);
		const gap = spread.unit === '°' || spread.unit === '%' ? '' : ' ';
		return `${base} ± ${plain(spread)}${spread.unit ? gap + spread.unit : ''}`;
	}

	/** A sentence as plain text in the archer's units. */
	said(said: Said): string {
		return said.text.replace(/\{(\w+)\}/g, (whole, slot: string) => {
			const value = said.values?.[slot];
			return value ? this.valueText(value) : (said.words?.[slot] ?? whole);
		});
	}
}

export const reference = new Reference();
speakBy((said) => reference.said(said));
