import type { Finding } from '$lib/api/client';

/** How a part or a bow of the rack suits, in words. */
export const VERDICT: Record<Finding['level'], string> = {
	stop: 'does not fit',
	mind: 'with care',
	fine: 'fits'
};
