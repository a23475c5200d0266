/** The server refused or could not be reached; the message is a sentence to show. */
export class ApiError extends Error {
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

interface Call {
  readonly method?: string;
  /** Sent as JSON. */
  readonly body?: unknown;
  /** Sent as it is, instead. */
  readonly file?: Blob;
  readonly keepalive?: boolean;
}

const payloadOf = ({ body, file }: Call): RequestInit => {
  if (file) return { body: file, headers: { 'content-type': 'application/octet-stream' } };
  if (body === undefined) return {};
  return { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } };
};

/** Calls the server; answers its JSON. */
export async function api<T = null>(path: string, call: Call = {}): Promise<T> {
  const { method = 'GET', keepalive } = call;
  const response = await fetch(path, { method, keepalive, ...payloadOf(call) }).catch(() => {
    throw new ApiError(
      'The Vistum server does not answer. Check that it is running; your changes are kept here meanwhile.',
      0,
    );
  });
  if (response.status === 204) return null as T;
  const value: unknown = await response.json().catch(() => null);
  if (response.ok) return value as T;
  const details = (value ?? {}) as Record<string, unknown>;
  const detail =
    typeof details.detail === 'string' ? details.detail : `The server answered ${response.status}.`;
  throw new ApiError(detail, response.status, details);
}
