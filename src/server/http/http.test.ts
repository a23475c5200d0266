import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { scratchFolder } from '../testing/media';
import { NewProjectBody } from './bodies';
import { handle, readBody } from './handle';
import { bodyToFile, readBytes } from './read-bytes';
import { checkJsonBounds } from './json-bounds';
import { DiskStore } from '../stores/disk-store';
import { sendFile } from './send-file';
import { readMetadata } from './upload-metadata';

const folder = scratchFolder();
const [path, store] = [join(folder, 'file.bin'), new DiskStore(folder)];
const bytes = Uint8Array.from({ length: 700_000 }, (_, i) => i % 251);
beforeAll(() => writeFileSync(path, bytes));

const get = (range?: string) =>
  new Request('http://127.0.0.1/x', { headers: range ? { range } : {} });
const body = async (response: Response) => new Uint8Array(await response.arrayBuffer());

describe('files with ranges', () => {
  test('the whole, a part, an open end, the last bytes', async () => {
    const whole = await sendFile(get(), store, 'file.bin', 'video/mp4');
    expect([whole.status, whole.headers.get('content-length')]).toEqual([200, '700000']);
    expect(Buffer.compare(await body(whole), bytes)).toBe(0);
    for (const [range, start, end] of [
      ['bytes=0-0', 0, 1],
      ['bytes=300000-599999', 300_000, 600_000],
      ['bytes=699990-', 699_990, 700_000],
      ['bytes=-5', 699_995, 700_000],
      ['bytes=10-9999999', 10, 700_000],
    ] as const) {
      const part = await sendFile(get(range), store, 'file.bin', 'video/mp4');
      expect(part.status).toBe(206);
      expect(part.headers.get('content-range')).toBe(`bytes ${start}-${end - 1}/700000`);
      expect(Buffer.compare(await body(part), bytes.subarray(start, end))).toBe(0);
    }
  });

  test('beyond the end is refused, a file that is gone is not found', async () => {
    await expect(
      sendFile(get('bytes=700000-'), store, 'file.bin', 'video/mp4'),
    ).rejects.toMatchObject({
      status: 416,
    });
    await expect(sendFile(get(), store, 'gone.bin', 'video/mp4')).rejects.toMatchObject({
      status: 404,
    });
  });

  test('whatever range is asked for, the bytes are those that the answer names', async () => {
    const ranges = fc.oneof(
      fc.tuple(fc.nat(800_000), fc.nat(800_000)).map(([a, b]) => `bytes=${a}-${b}`),
      fc.nat(900_000).map((n) => `bytes=-${n}`),
      fc.string({ maxLength: 20 }).map((t) => `bytes=${t.replace(/[^ -~]/g, '')}`),
      fc.constantFrom('bytes=0-0,5-9', 'lines=1-2', 'bytes=-', 'bytes=99999999999999999999-'),
    );
    await fc.assert(
      fc.asyncProperty(ranges, async (range) => {
        const answer = await sendFile(get(range), store, 'file.bin', 'video/mp4').catch(
          (error: { status: number }) => error,
        );
        if (!(answer instanceof Response)) return expect(answer.status).toBe(416);
        const got = await body(answer);
        const said = /^bytes (\d+)-(\d+)\/700000$/.exec(
          answer.headers.get('content-range') ?? 'bytes 0-699999/700000',
        )!;
        const want = bytes.subarray(Number(said[1]), Number(said[2]) + 1);
        expect(Buffer.compare(got, want)).toBe(0);
        expect(answer.headers.get('content-length')).toBe(String(want.length));
      }),
      { numRuns: 100 },
    );
  });

  test('what a browser has is asked about, and parts of two files never come together', async () => {
    const ask = (headers: Record<string, string>) =>
      sendFile(new Request('http://127.0.0.1/x', { headers }), store, 'changing.bin', 'video/mp4');
    const write = (text: string) => writeFileSync(join(folder, 'changing.bin'), text);
    write('the old recording');
    const first = await ask({});
    const etag = first.headers.get('etag')!;
    expect(first.headers.get('cache-control')).toMatch(/no-cache/);
    expect((await ask({ 'if-none-match': etag })).status).toBe(304);
    expect((await ask({ 'if-none-match': `"other", ${etag}` })).status).toBe(304);
    const part = await ask({ range: 'bytes=4-6', 'if-range': etag });
    expect([part.status, await part.text()]).toEqual([206, 'old']);
    write('the new recording, longer');
    const again = await ask({ 'if-none-match': etag });
    expect([again.status, await again.text()]).toEqual([200, 'the new recording, longer']);
    const stale = await ask({ range: 'bytes=4-6', 'if-range': etag });
    expect([stale.status, await stale.text()]).toEqual([200, 'the new recording, longer']);
    await first.body?.cancel();
  });

  test('a name with quotes and accents is safe in a download', async () => {
    const response = await sendFile(get(), store, 'file.bin', 'video/mp4', 'Ré"glage\n.mp4');
    expect(response.headers.get('content-disposition')).toBe(
      `attachment; filename="R__glage_.mp4"; filename*=UTF-8''R%C3%A9%22glage%0A.mp4`,
    );
    await response.body?.cancel();
  });
});

describe('handlers', () => {
  const post = (value: unknown, headers: Record<string, string> = {}) =>
    new Request('http://127.0.0.1:4180/api', {
      method: 'POST',
      body: typeof value === 'string' ? value : JSON.stringify(value),
      headers: { host: '127.0.0.1:4180', ...headers },
    });
  const make = handle(async (request) => ({ ...(await readBody(request, NewProjectBody)) }));
  const good = { name: 'A', width: 1920, height: 1080, frameRate: { num: 30, den: 1 } };

  test('a sound request is answered', async () => {
    const response = await make(post(good, { origin: 'http://127.0.0.1:4180' }), {});
    expect(await response.json()).toEqual(good);
  });

  test.each<[string, unknown, Record<string, string>, number, RegExp]>([
    ['another site', good, { origin: 'http://elsewhere.example' }, 403, /another site/],
    ['a cross-site fetch', good, { 'sec-fetch-site': 'cross-site' }, 403, /another site/],
    ['no JSON', 'hello', {}, 400, /not valid JSON/],
    ['a list', [], {}, 400, /not a JSON object/],
    ['a missing name', { ...good, name: undefined }, {}, 400, /name/],
    ['a width that is a word', { ...good, width: 'wide' }, {}, 400, /width/],
    ['a page of no origin', good, { origin: 'null' }, 403, /another site/],
    ['an origin that is none', good, { origin: 'ht!tp' }, 403, /another site/],
    [
      'another site that says where it was forwarded',
      good,
      { origin: 'http://elsewhere.example', 'x-forwarded-host': 'elsewhere.example' },
      403,
      /another site/,
    ],
    ['a page of another port', good, { 'sec-fetch-site': 'same-site' }, 403, /another site/],
    ['a name of null', { ...good, name: null }, {}, 400, /name/],
    ['a target of null', { ...good, target: null }, {}, 400, /target/],
    ['a frame rate that is a list', { ...good, frameRate: [] }, {}, 400, /frameRate/],
    ['deep nesting', `${'['.repeat(10_000)}${']'.repeat(10_000)}`, {}, 400, /more than 32 deep/],
    [
      'a crowd of unknown properties',
      Object.fromEntries(Array.from({ length: 9000 }, (_, i) => [`k${i}`, 0])),
      {},
      413,
      /more than 4000 values/,
    ],
    ['a long text', { ...good, name: 'x'.repeat(300_000) }, {}, 413, /larger than 256 KB/],
    ['a broken frame rate', { ...good, frameRate: { num: 0, den: 1 } }, {}, 400, /num/],
    ['an unknown property', { ...good, admin: true }, {}, 400, /admin/],
  ])(
    '%s is refused with a sentence as a JSON problem',
    async (_name, value, headers, status, message) => {
      const response = await make(post(value, headers), {});
      expect(response.status).toBe(status);
      expect(response.headers.get('content-type')).toBe('application/problem+json');
      expect(((await response.json()) as { detail: string }).detail).toMatch(message);
    },
  );

  test('a body that is too long is refused while it comes, not after', async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull: (controller) => {
        sent += 65_536;
        controller.enqueue(new Uint8Array(65_536));
      },
    });
    const request = new Request('http://127.0.0.1/x', {
      ...{ method: 'POST', body: endless, duplex: 'half' },
    } as RequestInit);
    await expect(readBytes(request, 1 << 20)).rejects.toMatchObject({ status: 413 });
    expect(sent).toBeLessThan(2 << 20);
  });

  test('a body that breaks off is refused, and leaves no file', async () => {
    const broken = () =>
      new Request('http://127.0.0.1/x', {
        method: 'POST',
        body: new ReadableStream({
          start: (controller) => controller.enqueue(new Uint8Array(10)),
          pull: (controller) => controller.error(new Error('gone')),
        }),
        duplex: 'half',
      } as RequestInit);
    await expect(readBytes(broken(), 100)).rejects.toMatchObject({ code: 'body-cut-off' });
    await expect(bodyToFile(broken(), `${path}.part`, 100)).rejects.toMatchObject({
      code: 'body-cut-off',
    });
    expect(existsSync(`${path}.part`)).toBe(false);
  });

  test('a full disk has a sentence, a bug does not leak', async () => {
    const full = await handle(() =>
      Promise.reject(Object.assign(new Error('write'), { code: 'ENOSPC' })),
    )(get(), {});
    expect(full.status).toBe(507);
    const log = jest.spyOn(console, 'error').mockImplementation(() => {});
    const bug = await handle(() => Promise.reject(new Error('secret path /root')))(get(), {});
    expect(bug.status).toBe(500);
    expect(await bug.text()).not.toMatch(/secret/);
    log.mockRestore();
  });
});

describe('what an upload says of itself', () => {
  test('is taken as it is where it makes sense, and cleaned where it does not', () => {
    expect(readMetadata({ filename: 'a.mp4', project: 'p', role: 'voice', relink: 'f' })).toEqual({
      filename: 'a.mp4',
      project: 'p',
      role: 'voice',
      relink: 'f',
    });
    expect(readMetadata({ filename: `${'x'.repeat(500)}.mp4`, role: 'admin' })).toEqual({
      filename: `${'x'.repeat(196)}.mp4`,
      project: '',
      role: null,
      relink: null,
    });
  });

  test('is never more than four short texts, whatever was sent', () => {
    fc.assert(
      fc.property(fc.anything(), (said) => {
        const { filename, project, role, relink } = readMetadata(said);
        expect(filename.length).toBeLessThanOrEqual(200);
        expect(project.length).toBeLessThanOrEqual(64);
        expect(role === null || role.length < 20).toBe(true);
        expect(relink === null || relink.length <= 64).toBe(true);
      }),
    );
  });
});

test('the bounds of a JSON text are those of its values, whatever its texts contain', () => {
  const count = (value: unknown): number =>
    typeof value === 'object' && value !== null
      ? 1 +
        Object.values(value).reduce<number>((sum, inner) => sum + count(inner), 0) +
        Math.max(0, Object.keys(value).length - 1)
      : 0;
  const depth = (value: unknown): number =>
    typeof value === 'object' && value !== null
      ? 1 + Math.max(0, ...Object.values(value).map(depth))
      : 0;
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
      const bytes = Buffer.from(JSON.stringify(value));
      const bounds = { depth: depth(value), values: count(value) };
      checkJsonBounds(bytes, bounds);
      if (bounds.values)
        expect(() => checkJsonBounds(bytes, { ...bounds, values: bounds.values - 1 })).toThrow();
      if (bounds.depth)
        expect(() => checkJsonBounds(bytes, { ...bounds, depth: bounds.depth - 1 })).toThrow();
    }),
  );
});
