import type { Params, Route } from '@/contract/route';
import { localContext, type ServerContext } from '../context';
import { handle, readBody } from './handle';

/** A request as a route handler gets it. */
interface Asked<P extends string, Body> {
  readonly context: ServerContext;
  readonly request: Request;
  readonly params: Params<P>;
  readonly query: URLSearchParams;
  readonly body: Body;
}

type Work<P extends string, Body, Answer> = (
  asked: Asked<P, Body>,
) => Promise<Answer | Response | (null extends Answer ? void : never)>;

type Handler = ((
  request: Request,
  context: { params: Promise<Readonly<Record<string, string>>> },
) => Promise<Response>) & {
  /** What it serves. */
  readonly route: Route;
};

/**
 * Makes the handler of a request that the contract describes. With a class the body is read as JSON
 * and checked by it; without, the work reads what the request carries.
 */
export function serve<P extends string, Body extends object, Answer>(
  route: Route<P, Body, Answer>,
  type: new () => Body,
  work: Work<P, Body, Answer>,
): Handler;
export function serve<P extends string, Answer>(
  route: Route<P, unknown, Answer>,
  work: Work<P, undefined, Answer>,
): Handler;
export function serve(
  route: Route,
  ...rest:
    | [work: Work<string, undefined, unknown>]
    | [type: new () => object, work: Work<string, object, unknown>]
): Handler {
  const handler = handle<Parameters<Handler>[1]>(async (request, given) => {
    const [params, query] = [await given.params, new URL(request.url).searchParams];
    const context = await localContext();
    const asked = { context, request, params: (params ?? {}) as Params<string>, query };
    const answer =
      rest.length === 1
        ? await rest[0]({ ...asked, body: undefined })
        : await rest[1]({ ...asked, body: await readBody(request, rest[0]) });
    return (answer ?? null) as Response | object | null;
  });
  return Object.assign(handler, { route });
}
