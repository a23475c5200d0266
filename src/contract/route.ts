export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** The names of the parts of a path that stand for something, as `id` in `/api/takes/:id`. */
type ParamNames<P extends string> = P extends `${infer A}/${infer B}`
  ? ParamNames<A> | ParamNames<B>
  : P extends `:${infer Name}`
    ? Name
    : never;

export type Params<P extends string> = Readonly<Record<ParamNames<P>, string>>;

/**
 * A request that the server answers: where it goes, what it carries and what comes back. Server and
 * client are both checked against it.
 */
export interface Route<P extends string = string, Body = unknown, Answer = unknown> {
  readonly method: Method;
  readonly path: P;
  /** For the types only; never there. */
  readonly types?: { readonly body: Body; readonly answer: Answer };
}

/** What answers with bytes, as a file does. */
export type Bytes = Blob;

/**
 * Describes a request. Types come first, in a call of their own, so that those of the path need not
 * be said: `route<Answer, Body>()('POST', '/api/things/:id')`.
 */
export const route =
  <Answer = null, Body = undefined>() =>
  <P extends string>(method: Method, path: P): Route<P, Body, Answer> => ({ method, path });

/**
 * The address of a request.
 *
 * @param params what the parts of the path stand for
 * @param query what follows it; an empty text stands for a name without a value
 */
export function address<P extends string>(
  { path }: { readonly path: P },
  params: Params<P>,
  query: Readonly<Record<string, string | number>> = {},
): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent((params as Readonly<Record<string, string>>)[name] ?? ''),
  );
  const asked = Object.entries(query).map(([name, value]) =>
    value === '' ? name : `${name}=${encodeURIComponent(value)}`,
  );
  return asked.length ? `${filled}?${asked.join('&')}` : filled;
}
