import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { svelteTesting } from '@testing-library/svelte/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit(), svelteTesting()],
	server: { proxy: { '/api': 'http://127.0.0.1:8730' } },
	test: {
		environment: 'jsdom',
		testTimeout: 60_000,
		hookTimeout: 60_000,
		include: ['src/**/*.test.ts'],
		setupFiles: ['./src/test-setup.ts']
	}
});
