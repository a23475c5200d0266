/** The server refused or could not be reached; the message is a sentence to show. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

/** Calls the server; answers its JSON. */
export async function api<T = null>(
  path: string,
  {
    method = 'GET',
    body,
    form,
    keepalive,
  }: { method?: string; body?: unknown; form?: FormData; keepalive?: boolean } = {},
): Promise<T> {
  const response = await fetch(path, {
    method,
    keepalive,
    ...(form
      ? { body: form }
      : body === undefined
        ? {}
        : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  }).catch(() => {
    throw new ApiError(
      'The Vistum server does not answer. Check that it is running; your changes are kept here meanwhile.',
      0,
    );
  });
  if (response.status === 204) return null as T;
  const value: unknown = await response.json().catch(() => null);
  if (response.ok) return value as T;
  throw new ApiError(
    (value as { detail?: string } | null)?.detail ?? `The server answered ${response.status}.`,
    response.status,
  );
}
