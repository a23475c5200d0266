import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { scratchFolder } from '../testing/media';
import { NewProjectBody } from './bodies';
import { handle, readBody } from './handle';
import { sendFile } from './send-file';

const path = join(scratchFolder(), 'file.bin');
const bytes = Uint8Array.from({ length: 700_000 }, (_, i) => i % 251);
beforeAll(() => writeFileSync(path, bytes));

const get = (range?: string) =>
  new Request('http://127.0.0.1/x', { headers: range ? { range } : {} });
const body = async (response: Response) => new Uint8Array(await response.arrayBuffer());

describe('files with ranges', () => {
  test('the whole, a part, an open end, the last bytes', async () => {
    const whole = await sendFile(get(), path, 'video/mp4');
    expect([whole.status, whole.headers.get('content-length')]).toEqual([200, '700000']);
    expect(Buffer.compare(await body(whole), bytes)).toBe(0);
    for (const [range, start, end] of [
      ['bytes=0-0', 0, 1],
      ['bytes=300000-599999', 300_000, 600_000],
      ['bytes=699990-', 699_990, 700_000],
      ['bytes=-5', 699_995, 700_000],
      ['bytes=10-9999999', 10, 700_000],
    ] as const) {
      const part = await sendFile(get(range), path, 'video/mp4');
      expect(part.status).toBe(206);
      expect(part.headers.get('content-range')).toBe(`bytes ${start}-${end - 1}/700000`);
      expect(Buffer.compare(await body(part), bytes.subarray(start, end))).toBe(0);
    }
  });

  test('beyond the end is refused, a file that is gone is not found', async () => {
    await expect(sendFile(get('bytes=700000-'), path, 'video/mp4')).rejects.toMatchObject({
      status: 416,
    });
    await expect(sendFile(get(), `${path}.gone`, 'video/mp4')).rejects.toMatchObject({
      status: 404,
    });
  });

  test('a name with quotes and accents is safe in a download', async () => {
    const response = await sendFile(get(), path, 'video/mp4', 'Ré"glage\n.mp4');
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
