import { inOrder } from './inOrder';
import { reference } from './reference.svelte';

/** Where the next arrow landed, typed: how far right of the spot, and how far up. */
export class TypedPlace {
	right = $state('');
	up = $state('');
	/** Why it cannot be read. */
	problem = $state('');
	readonly any = $derived(Boolean(this.right.trim() || this.up.trim()));
	private each = inOrder();

	constructor(private put: (right_cm: number, up_cm: number) => void) {}

	/** Take it from the fields at once: the next may be typed while it is read. */
	take(): Promise<void> {
		const { right, up } = this;
		this.right = this.up = this.problem = '';
		const read = async (text: string) => (text.trim() ? reference.read(text, 'spot') : 0);
		return this.each(async () => {
			try {
				this.put(await read(right), await read(up));
			} catch (error) {
				if (!this.any) Object.assign(this, { right, up });
				this.problem = (error as Error).message;
			}
		});
	}
}
