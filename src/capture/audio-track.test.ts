import fc from 'fast-check';
import { AudioTrack } from './audio-track';
import type { Part } from './part';
import { TakeClock } from './take-clock';

const RATE = 48_000;
const BLOCK = 480;

/** A block of sound as a browser hands it out: ten milliseconds, all samples the same. */
const block = (ms: number, value: number) => ({
  timestamp: ms * 1000,
  numberOfFrames: BLOCK,
  sampleRate: RATE,
  numberOfChannels: 1,
  copyTo: (plane: Float32Array) => plane.fill(value),
  close: () => undefined,
});

/**
 * Runs blocks through a track; each comes at its time plus a delay, on a clock that is read when it
 * comes.
 */
async function record(
  blocks: readonly { ms: number; delay: number; value: number }[],
  during: (take: TakeClock, track: AudioTrack, at: number) => void = () => undefined,
) {
  let now = 0;
  const pieces: Uint8Array[] = [];
  const part = { add: (bytes: Uint8Array) => void pieces.push(bytes) } as unknown as Part;
  let controller!: ReadableStreamDefaultController<AudioData>;
  const readable = new ReadableStream<AudioData>({ start: (c) => void (controller = c) });
  const track = new AudioTrack(
    readable,
    () => now,
    () => undefined,
  );
  const take = new TakeClock(500);
  let started = false;
  for (const { ms, delay, value } of blocks) {
    if (!started && ms >= 500) {
      track.start(take, part);
      started = true;
    }
    now = Math.max(now, ms + delay);
    during(take, track, ms);
    controller.enqueue(block(ms, value) as unknown as AudioData);
    // The reader has its turn before the next block comes.
    await new Promise((resolve) => setImmediate(resolve));
  }
  const bytes = Buffer.concat(pieces);
  const samples = new Int16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2);
  return { track, samples, seconds: samples.length / RATE };
}

const steady = (
  count: number,
  delay: (i: number) => number = () => 1,
  value: (ms: number) => number = () => 0.1,
) =>
  Array.from({ length: count }, (_, i) => ({ ms: i * 10, delay: delay(i), value: value(i * 10) }));
/** Seconds of the take at which the samples begin to be loud. */
const mark = (samples: Int16Array, offsetMs: number) =>
  samples.findIndex((v) => v > 20_000) / RATE + offsetMs / 1000;

test('every sample from the start on is written, whatever the delays', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 20, maxLength: 40 }),
      async (delays) => {
        // Now and then one comes at once, as on a machine that is not wholly overloaded.
        const { seconds, track } = await record(
          steady(250, (i) => (i % 5 ? delays[i % delays.length]! : 0)),
        );
        expect(seconds).toBeCloseTo(2, 2);
        expect(Math.abs(track.fit!.offset)).toBeLessThan(12);
        expect(track.stats.dropped).toBe(0);
      },
    ),
    { numRuns: 12 },
  );
});

test('what is lost on the way is made up for, so that what follows stays in its place', async () => {
  // Between 1.5 and 1.7 s of the take nothing comes; a mark at 3 s of the take.
  const blocks = steady(500, undefined, (ms) => (ms >= 3500 && ms < 3520 ? 0.9 : 0.05)).filter(
    ({ ms }) => ms < 2000 || ms >= 2200,
  );
  const { samples, track } = await record(blocks);
  expect(track.stats.dropped).toBe(1);
  expect(mark(samples, track.fit!.offset)).toBeCloseTo(3, 1);
  expect(Math.abs(mark(samples, track.fit!.offset) - 3)).toBeLessThan(0.025);
});

test('several small losses do not add up', async () => {
  const blocks = steady(900, undefined, (ms) => (ms >= 8500 && ms < 8520 ? 0.9 : 0.05)).filter(
    ({ ms }) => ms < 1000 || ms % 700 !== 0,
  );
  const { samples, track } = await record(blocks);
  expect(Math.abs(mark(samples, track.fit!.offset) - 8)).toBeLessThan(0.03);
});

test('a pause leaves no trace in the sound but its join', async () => {
  const { samples, track, seconds } = await record(
    steady(500, undefined, (ms) => (ms >= 4300 && ms < 4320 ? 0.9 : 0.05)),
    (take, each, ms) => {
      if (ms === 1500) take.pause(1500);
      if (ms === 3000) {
        take.resume(3000);
        each.rejoin();
      }
    },
  );
  expect(seconds).toBeCloseTo(3, 1);
  // 4.3 s on the page is 3.8 s after the start, less 1.5 s of pause.
  expect(Math.abs(mark(samples, track.fit!.offset) - 2.3)).toBeLessThan(0.03);
});

test('louder than full scale is cut off, not wrapped around', async () => {
  const { samples } = await record(steady(80, undefined, () => 1.7));
  expect(new Set(samples)).toEqual(new Set([32767]));
});
