import type { KeyDeeds } from './keys';

/** What the keys do on the present page, beside what they do everywhere; null where it has none. */
export const deeds = $state<{ page: Partial<KeyDeeds> | null; units: boolean; keys: boolean }>({
	page: null,
	units: false,
	keys: false
});
