import { allowedHosts, refusalAt } from './gate';
import { Spread } from './spread';
import { contentSecurityPolicy, SECURITY_HEADERS } from './headers';

const hosts = allowedHosts(4180, ' studio.example:4180, Kiln:80');
const knock = (change: object) =>
  refusalAt({ method: 'GET', url: '/', host: '127.0.0.1:4180', ...change }, hosts)?.code ?? null;

test.each([
  ['127.0.0.1:4180', null],
  ['localhost:4180', null],
  ['[::1]:4180', null],
  ['LOCALHOST:4180', null],
  ['studio.example:4180', null],
  ['kiln:80', null],
  ['127.0.0.1', 'host-refused'],
  ['127.0.0.1:4181', 'host-refused'],
  ['evil.example:4180', 'host-refused'],
  ['127.0.0.1:4180.evil.example', 'host-refused'],
  ['', 'host-refused'],
  [undefined, 'host-refused'],
])('asked for by the name %p it answers %p', (host, code) => {
  expect(knock({ host })).toBe(code);
});

test.each([
  ['/projects/a/edit', null],
  ['/api/projects?x=%20', null],
  ['/api/projects/%zz', 'bad-address'],
  ['/api/projects/%', 'bad-address'],
  ['/api/projects/%00', 'bad-address'],
  ['/api/projects/%C0%AF', 'bad-address'],
  ['/api/projects/a%0d%0aX-Evil:1', 'bad-address'],
])('the address %p is let in: %p', (url, code) => {
  expect(knock({ url })).toBe(code);
});

test('pages take nothing in', () => {
  expect(knock({ method: 'POST' })).toBe('no-such-method');
  expect(knock({ method: 'POST', url: '/api/projects' })).toBeNull();
});

test('no page runs text as a script, is shown in a frame, or talks to anybody else', () => {
  const policy = contentSecurityPolicy('bm9uY2U=', false);
  const scripts = /script-src ([^;]*)/.exec(policy)![1]!;
  expect(scripts).toContain("'nonce-bm9uY2U='");
  expect(scripts).not.toMatch(/unsafe-inline|'unsafe-eval'|\*|https?:/);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(policy).toContain("connect-src 'self';");
  expect(SECURITY_HEADERS['x-content-type-options']).toBe('nosniff');
});

test('a crowd is let through one after the other, whoever comes alone at once', async () => {
  const spread = new Spread(20);
  const began = performance.now();
  await spread.pass();
  expect(performance.now() - began).toBeLessThan(15);
  const times: number[] = [];
  await Promise.all(
    Array.from({ length: 5 }, () => spread.pass().then(() => times.push(performance.now()))),
  );
  for (const [i, time] of times.entries()) expect(time - began).toBeGreaterThan(20 * (i + 1) - 3);
});
