import createClient from 'openapi-fetch';
import type { Readable } from 'openapi-typescript-helpers';
import { noteFolder } from './folder';
import { answered, keyOf, writes } from './once';
import type { components, paths } from './schema';
import { ofShape } from './shape';

/** The API's types as they are read. */
export type Schemas = {
	[Name in keyof components['schemas']]: Readable<components['schemas'][Name]>;
};
export type Rig = Schemas['Rig'];
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
	fetch: (request) => {
		const once = request.method !== 'GET' && writes(new URL(request.url).pathname);
		return once ? sent(request) : globalThis.fetch(request);
	}
});

/** A request that writes, with the key by which it is done once. */
async function sent(request: Request): Promise<Response> {
	const asked = `${request.method} ${request.url} ${await request.clone().text()}`;
	request.headers.set('Idempotency-Key', keyOf(asked));
	const answer = await globalThis.fetch(request);
	answered(asked, answer.status);
	return answer;
}

/** How a sentence with values reads in the archer's units; set where the units are known. */
let speak = (said: Said): string => said.text;
export function speakBy(how: (said: Said) => string): void {
	speak = how;
}

/** What a problem says, with its reasons in the archer's units. */
export function problemOf(
	status: number,
	body: Partial<Schemas['ProblemDetails']> | undefined
): ApiProblem {
	const errors = (body?.errors ?? []).map((e) => (e.said ? { ...e, reason: speak(e.said) } : e));
	const first = body?.errors?.[0];
	const own = first && first.reason === body?.detail ? errors[0]?.reason : undefined;
	const message = own ?? body?.detail ?? `The server answered ${status}.`;
	return new ApiProblem(status, message, errors, body?.type);
}

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

	/** Whether it was made on other data than the server has now. */
	get otherData(): boolean {
		return this.type === 'urn:x-lyrandis:other-data';
	}
}

const UPDATED = 'Lyrandis was updated: load this page anew.';

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
	if (!ofShape(answer.response)) throw new ApiProblem(0, UPDATED);
	noteFolder(answer.response);
	if (answer.error === undefined && answer.response.ok) return answer.data as T;
	throw problemOf(answer.response.status, answer.error as Partial<Schemas['ProblemDetails']>);
}
