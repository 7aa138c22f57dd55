declare global {
	namespace App {
		/** What a step of the browser's history keeps beside its address. */
		interface PageState {
			/** Which leaf of the page was open. */
			leaf?: string;
		}
	}
}

export {};
