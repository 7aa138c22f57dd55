import createClient from 'openapi-fetch';
import type { Readable } from 'openapi-typescript-helpers';
import type { components, paths } from './schema';

/** The API's types as they are read. */
export type Schemas = {
	[Name in keyof components['schemas']]: Readable<components['schemas'][Name]>;
};
export type Rig = Schemas['Rig-Output'];
export type Bench = Schemas['BenchView'];
export type RigView = Schemas['RigView'];
export type Catalog = Schemas['Catalog'];
export type Said = Schemas['Said'];
export type Value = Schemas['Value'];
export type Finding = Schemas['Finding'];
export type StationState = Schemas['StationState'];
export type StationView = Schemas['StationView'];
export type FieldProblem = Schemas['FieldProblem'];

export const api = createClient<paths>({
	baseUrl: location.origin,
	fetch: (request) => globalThis.fetch(request)
});

/** What the server refused, with each field at fault. */
export class ApiProblem extends Error {
	constructor(
		readonly status: number,
		message: string,
		readonly errors: FieldProblem[] = [],
		readonly type = 'about:blank'
	) {
		super(message);
	}

	/** Whether someone else kept a change meanwhile. */
	get conflict(): boolean {
		return this.type === 'urn:x-lyrandis:conflict';
	}
}

interface Answer<T> {
	data?: T;
	error?: unknown;
	response: Response;
}

/** The answer's data, or an ApiProblem that says what is wrong. */
export async function told<T>(asked: Promise<Answer<T>>): Promise<T> {
	let answer: Answer<T>;
	try {
		answer = await asked;
	} catch {
		throw new ApiProblem(0, 'Lyrandis does not answer. Is it still running? Nothing was lost.');
	}
	if (answer.error === undefined && answer.response.ok) return answer.data as T;
	const body = answer.error as
		{ detail?: string; errors?: FieldProblem[]; type?: string } | undefined;
	throw new ApiProblem(
		answer.response.status,
		body?.detail ?? `The server answered ${answer.response.status}.`,
		body?.errors ?? [],
		body?.type
	);
}
