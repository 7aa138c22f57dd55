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
						// What most pages use comes in one piece, what stations share in another: many small files
						// cost more; the first page stays under its 100 KiB.
						codeSplitting: {
							groups: [
								{
									name: 'svelte',
									test: /node_modules\/(svelte|esm-env|clsx|devalue)\//,
									priority: 1
								},
								{
									name: 'common',
									test: /src\/lib\/|node_modules\//,
									minShareCount: 24,
									priority: 1
								},
								{ name: 'stations', test: /src\/lib\/(charts|plates|stations)\//, minShareCount: 3 }
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
