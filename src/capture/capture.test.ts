import fc from 'fast-check';
import { Part } from './part';
import { MemoryStore } from './part-store';
import { TakeClock } from './take-clock';
import { Uploader, type ServerState } from './uploader';

describe('the clock of a take', () => {
  test('stands still in a pause, and goes on without a jump', () => {
    const clock = new TakeClock(1000);
    expect(clock.at(999)).toBeNull();
    expect(clock.at(1500)).toBe(500);
    clock.pause(2000);
    expect(clock.at(2500)).toBeNull();
    expect(clock.now(2500)).toBeCloseTo(1000, 2);
    clock.resume(5000);
    expect(clock.at(3000)).toBeNull();
    expect(clock.at(5000)).toBe(1000);
    expect(clock.at(1500)).toBe(500);
    expect(clock.now(6000)).toBe(2000);
  });

  test('never runs backwards, whatever is paused', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 2, maxLength: 20 }),
        (steps) => {
          const clock = new TakeClock(0);
          let main = 0;
          let last = 0;
          steps.forEach((step, i) => {
            main += step;
            if (i % 3 === 1) clock.pause(main);
            if (i % 3 === 2) clock.resume(main);
            const now = clock.now(main);
            expect(now).toBeGreaterThanOrEqual(last - 0.01);
            expect(now).toBeLessThanOrEqual(main);
            last = now;
          });
        },
      ),
    );
  });
});

describe('what waits in memory', () => {
  test('is read again as it was written, from any place that is not confirmed yet', () => {
    fc.assert(
      fc.property(
        fc.array(fc.uint8Array({ minLength: 1, maxLength: 40 }), { minLength: 1, maxLength: 30 }),
        fc.nat(),
        fc.integer({ min: 1, max: 90 }),
        (pieces, from, most) => {
          const store = new MemoryStore();
          for (const piece of pieces) store.append(piece);
          const all = Buffer.concat(pieces);
          expect(store.size).toBe(all.length);
          const at = from % all.length;
          expect(Buffer.from(store.read(at, most))).toEqual(all.subarray(at, at + most));
          expect(Buffer.from(store.read(at, 1e6))).toEqual(all.subarray(at));
        },
      ),
    );
  });
});

/** A server that keeps pieces by their offsets, and fails as it is told. */
function fakeServer(failures: (string | number)[]) {
  const kept: Buffer[] = [];
  const size = () => kept.reduce((sum, b) => sum + b.length, 0);
  globalThis.fetch = jest.fn(async (_address, init) => {
    const fails = failures.shift();
    if (fails === 'away') throw new TypeError('fetch failed');
    if (typeof fails === 'number')
      return { ok: false, status: fails, json: async () => ({}) } as Response;
    const { headers, body } = init as unknown as {
      headers: Record<string, string>;
      body: Uint8Array;
    };
    const offset = Number(headers['upload-offset']);
    // As the server does: what is there is passed over, and a hole is told.
    if (offset <= size()) kept.push(Buffer.from(body.subarray(size() - offset)));
    // An answer that is lost on its way back.
    if (fails === 'lost') throw new TypeError('fetch failed');
    return { ok: true, status: 200, json: async () => ({ size: size(), free: 5e9 }) } as Response;
  }) as typeof fetch;
  return { kept: () => Buffer.concat(kept) };
}

const settled = async (done: () => boolean) => {
  for (let i = 0; i < 400 && !done(); i++) {
    await jest.advanceTimersByTimeAsync(50);
  }
};

describe('sending', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  test.each([
    ['a server that answers', []],
    ['one that is away for a while', ['away', 'away', 'away']],
    ['answers that are lost', ['lost', null, 'lost']],
    ['a server that does not know the take yet', [404, 404]],
    ['all of it', [404, 'lost', 'away', null, 'lost', 500]],
  ] as [string, (string | number)[]][])(
    'every byte arrives once and in order: %s',
    async (_name, failures) => {
      const server = fakeServer([...failures]);
      const states: ServerState[] = [];
      const part = new Part(
        'voice',
        new MemoryStore(),
        'take',
        (state) => states.push(state),
        () => undefined,
      );
      const all: Buffer[] = [];
      for (let i = 0; i < 30; i++) {
        const piece = Buffer.alloc(1 + ((i * 37) % 90), i);
        all.push(piece);
        part.add(piece);
        await jest.advanceTimersByTimeAsync(90);
      }
      part.flush();
      await settled(() => part.waiting === 0);
      expect(part.waiting).toBe(0);
      expect(server.kept()).toEqual(Buffer.concat(all));
      expect(states.at(-1)).toBe('here');
      if (failures.includes('away')) expect(states).toContain('away');
      part.close();
    },
  );

  test('a full disk is told, and a take that was closed elsewhere is left alone', async () => {
    fakeServer([507]);
    const states: ServerState[] = [];
    const store = new MemoryStore();
    store.append(Buffer.from('abc'));
    const full = new Uploader('/x', store, (state) => states.push(state));
    full.push();
    await settled(() => full.waiting === 0);
    expect(states).toEqual(['full', 'here']);
    fakeServer([410]);
    const ended = new Uploader('/x', store, (state) => states.push(state));
    ended.push();
    await settled(() => ended.ended);
    expect(states.at(-1)).toBe('ended');
    expect(ended.waiting).toBe(3);
  });

  test('a store that takes no more is told once for each try, and nothing is thrown', async () => {
    const onFull = jest.fn();
    const broken = Object.assign(new MemoryStore(), {
      append: () => {
        throw new Error('quota');
      },
    });
    const part = new Part('voice', broken, 'take', () => undefined, onFull);
    part.add(new Uint8Array(9));
    part.flush();
    expect(onFull).toHaveBeenCalledTimes(1);
    part.close();
  });
});
