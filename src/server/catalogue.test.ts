import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CATALOGUE, type Code } from './catalogue';
import { LIMITS } from './limits';
import { problem, problemFor, systemProblem } from './problem';

const codes = Object.keys(CATALOGUE) as Code[];
const make = (code: Code) =>
  (problem as (code: Code, ...args: unknown[]) => ReturnType<typeof problem>)(
    code,
    ...CATALOGUE[code].example,
  );

function* sources(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\.|catalogue\.ts/.test(entry.name))
      yield readFileSync(path, 'utf8');
  }
}

test.each(codes)('%s is a sentence that a person can act on', (code) => {
  const { status, message } = make(code);
  expect(status).toBeGreaterThanOrEqual(400);
  expect(status).toBeLessThan(600);
  expect(message).toMatch(/^\S/);
  expect(message).toMatch(/[.)]$|^Cancelled$/);
  expect(message.length).toBeLessThan(320);
  expect(message).not.toMatch(/undefined|null|\[object|NaN|\bat \w+ \(/);
  // No path of the machine.
  expect(message).not.toMatch(/(^|\s)\/(?!\/)(root|home|var|tmp|work|usr)/);
});

test('every problem of the catalogue is used, and none is made outside of it', () => {
  const all = [...sources('src')].join('\n');
  expect(codes.filter((code) => !all.includes(`'${code}'`))).toEqual([]);
  expect(all.match(/new Problem\(/g)).toHaveLength(3);
});

test.each([
  [{ code: 'ENOSPC' }, 507],
  [{ code: 'EROFS', message: "EROFS: read-only file system, open '/data/x'" }, 507],
  [{ code: 'EACCES', message: "EACCES: permission denied, mkdir '/data/x'" }, 507],
  [{ message: 'SQLITE_FULL: database or disk is full' }, 507],
  [{ name: 'SequelizeTimeoutError', parent: { code: 'SQLITE_BUSY' } }, 503],
  [{ parent: { code: 'SQLITE_CORRUPT' } }, 500],
])('of %p no path is told', (error, status) => {
  const found = systemProblem(error)!;
  expect(found.status).toBe(status);
  expect(found.message).not.toContain('/data');
});

test('what nobody expected says neither path nor stack', () => {
  const { message, status } = problemFor(new Error("ENOENT: no such file, open '/root/secret'"));
  expect([status, /root|secret/.test(message)]).toEqual([500, false]);
});

test('each limit stands in docs/security.md with its number and its setting', () => {
  const text = readFileSync('docs/security.md', 'utf8');
  for (const { setting, value, what, unit } of Object.values(LIMITS)) {
    const row = text.split('\n').find((line) => line.includes(`\`${setting}\``));
    expect([setting, row ?? '']).toEqual([setting, expect.stringContaining(what)]);
    expect(row!.replaceAll(' ', '')).toContain(`${value}|${unit}`);
  }
});
