import { MediaQuery } from 'svelte/reactivity';
import type { KeyDeeds } from './keys';

/** The width from which rail, station and findings no longer stand side by side. */
const FOLDS = 'max-width: 900px';

const folds = typeof matchMedia === 'function' ? new MediaQuery(FOLDS) : { current: false };

/** What the layout depends on: whether it is folded to one column. */
export const screen = {
	get folded(): boolean {
		return folds.current;
	}
};

/** What the keys do on the present page, beside what they do everywhere; null where it has none. */
export const deeds = $state<{ page: Partial<KeyDeeds> | null; units: boolean; keys: boolean }>({
	page: null,
	units: false,
	keys: false
});
