/**
 * Asks one at a time: while a question is out only the latest is remembered, and asked next.
 *
 * `current` says whether no other question came meanwhile: an answer is taken only then.
 */
export function latest<Question>(
	ask: (question: Question, current: () => boolean) => Promise<void>
): (question: Question) => void {
	let waiting: { question: Question } | null = null;
	let running = false;

	async function run(): Promise<void> {
		running = true;
		while (waiting) {
			const { question } = waiting;
			waiting = null;
			await ask(question, () => waiting === null);
		}
		running = false;
	}
	return (question) => {
		waiting = { question };
		if (!running) void run();
	};
}
