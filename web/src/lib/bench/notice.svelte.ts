/** Short notices at the foot of the page: what shows them comes with the first. */
export const notices = $state<{ asked: boolean; waiting: string[] }>({ asked: false, waiting: [] });

/** The sheet shows what is kept: where changes are not, that is said. */
export function tellOfSheet(dirty: boolean): void {
	if (dirty) notify('The sheet shows what is kept; the changes not kept are not on it.');
}

export function notify(title: string): void {
	notices.asked = true;
	notices.waiting.push(title);
}
