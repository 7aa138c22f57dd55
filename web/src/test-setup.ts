import '@testing-library/jest-dom/vitest';
import { configure } from '@testing-library/svelte';

// A busy machine is slow, not wrong.
configure({ asyncUtilTimeout: 30_000 });

class NoResize {
	observe() {}
	unobserve() {}
	disconnect() {}
}
globalThis.ResizeObserver ??= NoResize as unknown as typeof ResizeObserver;
