import { createToaster } from '@skeletonlabs/skeleton-svelte';

/** Short notices at the foot of the page. */
export const toaster = createToaster({ placement: 'bottom' });

/** The sheet shows what is kept: where changes are not, that is said. */
export function tellOfSheet(dirty: boolean): void {
	if (dirty) notify('The sheet shows what is kept; the changes not kept are not on it.');
}

export function notify(title: string): void {
	toaster.create({ title, duration: 4000 });
}
