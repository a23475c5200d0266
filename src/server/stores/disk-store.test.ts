import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  readlinkSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { scratchFolder } from '../testing/media';
import { DiskStore } from './disk-store';

const root = scratchFolder();
const store = new DiskStore(join(root, 'store'));
const made = (text: string) => {
  const path = join(root, `made-${Math.random()}`);
  writeFileSync(path, text);
  return path;
};
const textOf = (stream: ReadableStream<Uint8Array>) => new Response(stream).text();

test('what is put in is there whole, is replaced whole, and is no longer where it was', async () => {
  const from = made('one');
  await store.put('footage/a/proxy.mp4', from);
  expect(existsSync(from)).toBe(false);
  expect(await store.find('footage/a/proxy.mp4')).toMatchObject({ bytes: 3 });
  const before = statSync(await store.path('footage/a/proxy.mp4')).ino;
  await store.put('footage/a/proxy.mp4', made('second'));
  const path = await store.path('footage/a/proxy.mp4');
  expect([readFileSync(path, 'utf8'), statSync(path).ino === before]).toEqual(['second', false]);
});

test('a second name keeps what the first had, whatever becomes of that', async () => {
  await store.put('footage/b/one.mp4', made('bytes'));
  await store.put('footage/b/two.json', made('{}'));
  writeFileSync(join(root, 'store/footage/b/three.json.1.part'), 'half');
  mkdirSync(join(root, 'store/footage/b/folder'));
  await store.share('footage/b', 'footage/c');
  await store.share('footage/b/one.mp4', 'exports/d/inputs/one.mp4');
  // Done once more, as after a break, it changes nothing.
  await store.share('footage/b', 'footage/c');
  expect((await store.list('footage/c')).map(({ name }) => name).sort()).toEqual([
    'one.mp4',
    'two.json',
  ]);
  const both = new Map([...(await store.sizes('footage/c')), ...(await store.sizes('exports/d'))]);
  expect([...both.values()].sort((a, b) => a - b)).toEqual([2, 5]);
  await store.remove('footage/b');
  await store.remove('footage/b');
  expect(await store.find('footage/b/one.mp4')).toBeNull();
  expect(readFileSync(await store.path('exports/d/inputs/one.mp4'), 'utf8')).toBe('bytes');
  await expect(store.share('footage/b/one.mp4', 'footage/e/one.mp4')).rejects.toMatchObject({
    code: 'ENOENT',
  });
});

test('any part of a file is read as it is', async () => {
  const bytes = Array.from({ length: 700_000 }, (_, i) => String.fromCharCode(97 + (i % 26)));
  const text = bytes.join('');
  await store.put('footage/f/long.txt', made(text));
  await fc.assert(
    fc.asyncProperty(fc.nat(700_000), fc.nat(700_000), async (a, b) => {
      const [start, end] = [Math.min(a, b), Math.max(a, b)];
      const read = await textOf(store.stream('footage/f/long.txt', start, end));
      expect(read === text.slice(start, end)).toBe(true);
    }),
    { numRuns: 30 },
  );
});

test.each(['../out', 'a/../../out', '/etc/passwd', 'a//b', '', '.hidden', 'a/..'])(
  'no name leads out of the store: %j',
  async (name) => {
    for (const use of [() => store.path(name), () => store.find(name), () => store.remove(name)])
      await expect((async () => use())()).rejects.toThrow(/No file can have the name/);
  },
);

/** How often this process has a file open. */
const opened = (path: string) =>
  readdirSync('/proc/self/fd').filter((fd) => {
    try {
      return readlinkSync(`/proc/self/fd/${fd}`) === path;
    } catch {
      return false;
    }
  }).length;

test('whoever goes away while a file is opened or read leaves nothing open', async () => {
  const size = 3_000_000;
  await store.put('footage/f/long.mp4', made('x'.repeat(size)));
  const path = await store.path('footage/f/long.mp4');
  for (let turns = 0; turns < 24; turns++) {
    const reader = store.stream('footage/f/long.mp4', 0, size).getReader();
    const asked = reader.read().catch(() => null);
    // From before it is open until after the first piece is there.
    for (let i = 0; i < turns; i++) await new Promise((done) => setImmediate(done));
    await reader.cancel();
    await asked;
  }
  // What was being opened when it was left is closed as soon as it is open.
  for (let i = 0; i < 200 && opened(path); i++) await new Promise((done) => setTimeout(done, 10));
  expect(opened(path)).toBe(0);
  expect((await textOf(store.stream('footage/f/long.mp4', 0, size))).length).toBe(size);
  expect(opened(path)).toBe(0);
  await expect(textOf(store.stream('footage/f/gone.mp4', 0, 5))).rejects.toThrow();
});
