import { createToaster } from '@skeletonlabs/skeleton-svelte';

/** Short notices at the foot of the page. */
export const toaster = createToaster({ placement: 'bottom' });

export function notify(title: string): void {
	toaster.create({ title, duration: 4000 });
}
