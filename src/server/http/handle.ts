import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validate, type ValidationError } from 'class-validator';
import { limit } from '../limits';
import type { Problem } from '../problem';
import { problem, problemFor } from '../problem';
import { checkJsonBounds } from './json-bounds';
import { problemJson } from './problem-json';
import { readBytes } from './read-bytes';

type Work<C> = (request: Request, context: C) => Promise<Response | object | null>;

const problemResponse = (found: Problem): Response => {
  const { status, type, text } = problemJson(found);
  return new Response(text, { status, headers: { 'content-type': type } });
};

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}

/**
 * Requests that change something must come from our own pages. A browser says where a page is from;
 * what comes without that is no page.
 */
function checkOrigin(request: Request): void {
  if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return;
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const ours = origin === null || hostOf(origin) === request.headers.get('host');
  if (!ours || (site !== null && site !== 'same-origin' && site !== 'none'))
    throw problem('other-site');
}

/** Makes a route handler: checks the origin, answers JSON, turns problems into sentences. */
export function handle<C>(work: Work<C>): (request: Request, context: C) => Promise<Response> {
  return async (request, context) => {
    try {
      checkOrigin(request);
      const answer = await work(request, context);
      if (answer instanceof Response) return answer;
      return answer === null ? new Response(null, { status: 204 }) : Response.json(answer);
    } catch (error) {
      const found = problemFor(error);
      if (found.code === 'unexpected') console.error(error);
      return problemResponse(found);
    }
  };
}

/** A JSON text as an answer. */
export const jsonText = (text: string): Response =>
  new Response(text, { headers: { 'content-type': 'application/json' } });

/** The JSON object of a request, within bounds. */
export async function readJson(
  request: Request,
  bounds: { readonly bytes: number; readonly values: number } = {
    bytes: limit('body'),
    values: limit('bodyValues'),
  },
): Promise<Record<string, unknown>> {
  const bytes = await readBytes(request, bounds.bytes);
  checkJsonBounds(bytes, { depth: limit('depth'), values: bounds.values });
  let body: unknown;
  try {
    body = JSON.parse(Buffer.from(bytes).toString());
  } catch {
    throw problem('bad-json');
  }
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    throw problem('not-an-object');
  return body as Record<string, unknown>;
}

/** A value as a class of `bodies` describes it; what is wrong with it becomes a problem. */
export async function checkBody<T extends object>(body: object, type: new () => T): Promise<T> {
  const instance = plainToInstance(type, body);
  const errors = await validate(instance, { whitelist: true, forbidNonWhitelisted: true });
  if (errors.length) throw problem('bad-body', firstMessage(errors[0]!).slice(0, 300));
  return instance;
}

/**
 * The JSON body as a checked instance of a class. Its size, depth and number of values are bounded
 * before anything is made of it.
 */
export const readBody = async <T extends object>(request: Request, type: new () => T): Promise<T> =>
  checkBody(await readJson(request), type);

function firstMessage(error: ValidationError): string {
  const own = Object.values(error.constraints ?? {})[0];
  return (
    own ?? (error.children?.[0] ? firstMessage(error.children[0]) : `${error.property} is wrong`)
  );
}
