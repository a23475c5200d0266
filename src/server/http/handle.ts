import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validate, type ValidationError } from 'class-validator';
import { describeSystemError, Problem } from '../problem';

type Work<C> = (request: Request, context: C) => Promise<Response | object | null>;

/** A JSON problem (RFC 9457). */
const problemResponse = (status: number, detail: string, more: object = {}): Response =>
  new Response(
    JSON.stringify({ type: 'about:blank', title: 'Not done', status, detail, ...more }),
    {
      status,
      headers: { 'content-type': 'application/problem+json' },
    },
  );

/** Requests that change something must come from our own pages. */
function checkOrigin(request: Request): void {
  if (request.method === 'GET' || request.method === 'HEAD' || request.method === 'OPTIONS') return;
  const origin = request.headers.get('origin');
  const host = request.headers.get('x-forwarded-host') ?? request.headers.get('host');
  const site = request.headers.get('sec-fetch-site');
  if ((origin && new URL(origin).host !== host) || site === 'cross-site')
    throw new Problem(403, 'This request came from another site and was refused.');
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
      if (error instanceof Problem)
        return problemResponse(error.status, error.message, error.details);
      const system = describeSystemError(error);
      if (system) return problemResponse(507, system);
      console.error(error);
      return problemResponse(
        500,
        'Something unexpected happened on the server. Try again; the log of the server says more.',
      );
    }
  };
}

/** The JSON body as a checked instance of a class. */
export async function readBody<T extends object>(request: Request, type: new () => T): Promise<T> {
  let body: unknown;
  try {
    body = await request.json();
  } catch {
    throw new Problem(400, 'The request is not valid JSON.');
  }
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    throw new Problem(400, 'The request is not a JSON object.');
  const instance = plainToInstance(type, body);
  const errors = await validate(instance, { whitelist: true, forbidNonWhitelisted: true });
  if (errors.length) throw new Problem(400, `${firstMessage(errors[0]!)}.`);
  return instance;
}

function firstMessage(error: ValidationError): string {
  const own = Object.values(error.constraints ?? {})[0];
  return (
    own ?? (error.children?.[0] ? firstMessage(error.children[0]) : `${error.property} is wrong`)
  );
}
