/** An answer beside the question that it belongs to: another question has none until its own comes. */
export class Answer<Question, Result> {
	private held = $state.raw<{ to: string; result: Result } | null>(null);
	/** The answer to the question as it stands; null while it has none. */
	readonly now = $derived.by(() =>
		this.held?.to === JSON.stringify(this.question()) ? this.held.result : null
	);

	constructor(private question: () => Question) {}

	/** Take in what came, and what had been asked. */
	take(question: Question, result: Result): void {
		this.held = { to: JSON.stringify(question), result };
	}
}
