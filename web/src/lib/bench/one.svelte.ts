import { untrack } from 'svelte';

/** How many deeds are at work, said to who cannot see it. */
export const working = $state({ count: 0 });

/** Deeds done one at a time: a second press while one is at work does nothing. */
export class One {
	busy = $state(false);
	/** The same before anything is shown: it is set in the press itself. */
	private at = false;

	/** Do it, unless one is at work; whether it was begun. */
	async run(deed: () => Promise<unknown>): Promise<boolean> {
		if (this.at) return false;
		this.at = true;
		this.show(true);
		try {
			await deed();
			return true;
		} finally {
			this.at = false;
			this.show(false);
		}
	}

	private show(busy: boolean): void {
		this.busy = busy;
		untrack(() => (working.count += busy ? 1 : -1));
	}

	/** What a form or a button does with a press. */
	on =
		<Press extends Event>(deed: (press: Press) => Promise<unknown>) =>
		(press: Press): void => {
			press.preventDefault();
			void this.run(() => deed(press));
		};
}
