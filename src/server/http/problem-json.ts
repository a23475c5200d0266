import type { Problem } from '../problem';

/** A problem as it goes over HTTP (RFC 9457). */
export function problemJson({ code, status, message, details }: Problem) {
  const body = {
    ...details,
    type: `urn:vistum:problem:${code}`,
    title: 'Not done',
    status,
    detail: message,
  };
  return { status, type: 'application/problem+json', text: JSON.stringify(body) };
}
