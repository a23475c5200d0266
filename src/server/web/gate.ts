import { problem, type Problem } from '../problem';

/** What the gate looks at of a request, before anything else does. */
export interface Knock {
  readonly method: string;
  readonly url: string;
  readonly host: string | undefined;
}

/**
 * Headers by which a proxy tells of others, and by which Next is told of a page's nonce; nobody
 * outside may set them.
 */
export const FORGED_HEADERS = [
  'forwarded',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-forwarded-port',
  'x-forwarded-for',
  'x-real-ip',
  'x-middleware-subrequest',
  'x-nonce',
  'content-security-policy',
  'content-security-policy-report-only',
] as const;

/**
 * The names at which Vistum answers: this machine's own at its port, and those of the setting. A
 * page of another site that got its own name to lead here (DNS rebinding) still asks by that name.
 *
 * @param setting names with their ports, separated by commas
 */
export function allowedHosts(port: number, setting = ''): ReadonlySet<string> {
  const own = ['127.0.0.1', 'localhost', '[::1]'].map((name) => `${name}:${port}`);
  const more = setting
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter(Boolean);
  return new Set([...own, ...more]);
}

/** Signs that no address of ours has: those that end texts or lines elsewhere. */

const CONTROL = /[\u0000-\u001f\u007f]/;

function readable(url: string): boolean {
  try {
    return !CONTROL.test(decodeURIComponent(url));
  } catch {
    return false;
  }
}

/** Why a request is not let in; null when it is. */
export function refusalAt(
  { method, url, host }: Knock,
  hosts: ReadonlySet<string>,
): Problem | null {
  if (!host || !hosts.has(host.toLowerCase())) return problem('host-refused');
  if (!readable(url)) return problem('bad-address');
  const path = url.split('?', 1)[0]!;
  // Pages are only looked at; nothing but the interface of the server takes anything in.
  if (!path.startsWith('/api/') && method !== 'GET' && method !== 'HEAD')
    return problem('no-such-method');
  return null;
}
