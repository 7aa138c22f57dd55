import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { svelteTesting } from '@testing-library/svelte/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit(), svelteTesting()],
	environments: {
		client: {
			build: {
				rolldownOptions: {
					output: {
						// What more than one page uses comes in one piece: seventy small files cost more than it.
						codeSplitting: {
							groups: [
								{
									name: 'svelte',
									test: /node_modules\/(svelte|esm-env|clsx|devalue)\//,
									priority: 1
								},
								{ name: 'shared', test: /src\/lib\/|node_modules\//, minShareCount: 2 }
							]
						}
					}
				}
			}
		}
	},
	server: { proxy: { '/api': 'http://127.0.0.1:8730' } },
	test: {
		environment: 'jsdom',
		// A file finds the page as the one before left it: no test may lean on an untouched one.
		isolate: false,
		testTimeout: 60_000,
		hookTimeout: 60_000,
		include: ['src/**/*.test.ts'],
		setupFiles: ['./src/test-setup.ts']
	}
});
