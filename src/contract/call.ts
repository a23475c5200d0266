import { address, type Params, type Route } from './route';

/** The server refused or could not be reached; the message is a sentence to show. */
export class CallError extends Error {
  constructor(
    message: string,
    /** HTTP status; 0 when there was no answer. */
    readonly status: number,
    /** What the server's problem says besides. */
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }
}

type Given<P extends string, Body> = ([keyof Params<P>] extends [never]
  ? unknown
  : { readonly params: Params<P> }) &
  (undefined extends Body ? unknown : { readonly body: Body }) & {
    readonly query?: Readonly<Record<string, string | number>>;
  };

type Args<P extends string, Body> =
  object extends Given<P, Body> ? [given?: Given<P, Body>] : [given: Given<P, Body>];

interface AnyGiven {
  readonly params?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  readonly query?: Readonly<Record<string, string | number>>;
}

const payloadOf = (body: unknown): RequestInit => {
  if (body === undefined) return {};
  if (body instanceof Blob)
    return { body, headers: { 'content-type': 'application/octet-stream' } };
  return { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } };
};

/** A request as `fetch` takes it: what has its own ways of waiting and trying again needs that. */
export function requestFor<P extends string, Body, Answer>(
  route: Route<P, Body, Answer>,
  ...[given]: Args<P, Body>
): [address: string, init: RequestInit] {
  const { params = {}, body, query } = (given ?? {}) as AnyGiven;
  return [address(route, params as Params<P>, query), { method: route.method, ...payloadOf(body) }];
}

/**
 * Calls the server and answers what it says.
 *
 * @throws CallError with a sentence when it refused or did not answer
 */
export async function call<P extends string, Body, Answer>(
  route: Route<P, Body, Answer>,
  ...given: Args<P, Body>
): Promise<Answer> {
  const response = await fetch(...requestFor(route, ...given)).catch(() => {
    throw new CallError(
      'The Vistum server does not answer. Check that it is running; your changes are kept here meanwhile.',
      0,
    );
  });
  if (response.status === 204) return null as Answer;
  const value: unknown = await response.json().catch(() => null);
  if (response.ok) return value as Answer;
  const details = (value ?? {}) as Record<string, unknown>;
  const detail =
    typeof details.detail === 'string' ? details.detail : `The server answered ${response.status}.`;
  throw new CallError(detail, response.status, details);
}
