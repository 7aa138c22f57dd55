import { beforeNavigate, goto } from '$app/navigation';
import { page } from '$app/state';

interface Changes {
	/** Whether anything is changed and not kept, and not on its way to be. */
	waiting(): boolean;
	/** Keep it; whether it was kept. */
	keep(): Promise<boolean>;
	drop(): void;
}

/** Where a page is left with changes not kept, their archer is asked first. Called as it is set up. */
export function askBeforeLeaving(changes: Changes) {
	let to = $state<string | null>(null);
	let letGo = false;

	beforeNavigate((navigation) => {
		if (!changes.waiting() || letGo) return;
		if (navigation.to?.url.pathname === page.url.pathname) return;
		navigation.cancel();
		if (navigation.type !== 'leave' && navigation.to) to = navigation.to.url.pathname;
	});

	return {
		/** Where they were going; null while nobody is asked. */
		get to(): string | null {
			return to;
		},
		stay: (): void => void (to = null),
		async go(keep: boolean): Promise<void> {
			const next = to;
			if (next === null) return;
			if (keep && !(await changes.keep())) {
				to = null;
				return;
			}
			if (!keep) changes.drop();
			to = null;
			letGo = true;
			await goto(next);
			letGo = false;
		}
	};
}
