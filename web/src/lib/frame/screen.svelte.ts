import { MediaQuery } from 'svelte/reactivity';

/** The width from which rail, station and findings no longer stand side by side. */
const FOLDS = 'max-width: 900px';

const folds = typeof matchMedia === 'function' ? new MediaQuery(FOLDS) : { current: false };

/** What the layout depends on: whether it is folded to one column. */
export const screen = {
	get folded(): boolean {
		return folds.current;
	}
};
