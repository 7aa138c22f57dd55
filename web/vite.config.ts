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
						// What stands on every station comes in one piece: many small files cost more.
						codeSplitting: {
							groups: [
								{
									name: 'svelte',
									test: /node_modules\/(svelte|esm-env|clsx|devalue)\//,
									priority: 3
								},
								{
									name: 'words',
									test: /src\/lib\/(format|api|bench\/(reference|notice|attempt|latest|paths)|frame\/(window|keys|focus|Mark))/,
									priority: 2
								},
								{ name: 'charts', test: /src\/lib\/charts\// }
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
