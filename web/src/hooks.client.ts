import type { HandleClientError } from '@sveltejs/kit';
import { ApiProblem } from '$lib/api/client';

/** What the server refused, or that it does not answer, is told in its own words. */
export const handleError: HandleClientError = ({ error, message }) => ({
	message: error instanceof ApiProblem ? error.message : message
});
