/**
 * The content security policy of a page: what it may load, run and talk to is its own server,
 * scripts only those that carry the answer's nonce or come from the server, and no other site may
 * show it in a frame (CSP Level 3).
 *
 * @param nonce a fresh random text for each answer
 * @param dev while developing, modules are evaluated as they change and a socket tells of changes
 */
export function contentSecurityPolicy(nonce: string, dev: boolean): string {
  const directives: Readonly<Record<string, readonly string[]>> = {
    'default-src': ["'self'"],
    // The kernels are WebAssembly, which this lets compile without letting text become code.
    'script-src': [
      "'self'",
      `'nonce-${nonce}'`,
      "'wasm-unsafe-eval'",
      ...(dev ? ["'unsafe-eval'"] : []),
    ],
    // Positions and sizes on the timeline are styles of elements; styles can't run anything.
    'style-src': ["'self'", "'unsafe-inline'"],
    'img-src': ["'self'", 'blob:', 'data:'],
    'media-src': ["'self'", 'blob:'],
    'font-src': ["'self'"],
    'connect-src': ["'self'", ...(dev ? ['ws:'] : [])],
    'worker-src': ["'self'", 'blob:'],
    'object-src': ["'none'"],
    'base-uri': ["'none'"],
    'form-action': ["'self'"],
    'frame-ancestors': ["'none'"],
  };
  return Object.entries(directives)
    .map(([name, values]) => [name, ...values].join(' '))
    .join('; ');
}

/** Headers of every answer, whatever it is, but for the content security policy. */
export const SECURITY_HEADERS: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-embedder-policy': 'require-corp',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy':
    'camera=(self), microphone=(self), display-capture=(self), geolocation=(), usb=(), payment=()',
};
