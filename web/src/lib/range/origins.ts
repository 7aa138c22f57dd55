/**
 * What waits at another address of the same machine: http or https, or another port.
 *
 * A browser keeps what waits by the whole address, cookies by the name in it alone: so each page
 * notes in a cookie how many acts wait at its own address, and reads what others noted.
 */
const NAME = 'lyrandis-waits.';
const LASTS_S = 400 * 86_400;

export interface Elsewhere {
	/** Scheme, name and port. */
	origin: string;
	count: number;
}

const nameOf = (origin: string): string => NAME + encodeURIComponent(origin);
const write = (origin: string, count: number, lasts_s: number): void => {
	document.cookie = `${nameOf(origin)}=${count}; path=/; max-age=${lasts_s}; samesite=lax`;
};

/** Note how many acts wait at this page's own address. */
export function noteWaiting(count: number): void {
	write(location.origin, count, count ? LASTS_S : 0);
}

/** Where else acts wait, as far as pages there noted it. */
export function waitingElsewhere(): Elsewhere[] {
	return document.cookie.split('; ').flatMap((cookie) => {
		const [name = '', value = ''] = cookie.split('=');
		if (!name.startsWith(NAME)) return [];
		const [origin, count] = [decodeURIComponent(name.slice(NAME.length)), Number(value)];
		return origin !== location.origin && count > 0 ? [{ origin, count }] : [];
	});
}

/** Forget what was noted of an address that is gone; what waits there stays there. */
export const forgetElsewhere = (origin: string): void => write(origin, 0, 0);
