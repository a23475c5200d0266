import fc from 'fast-check';
import { UNADJUSTED, type FramePlan, type VideoLayer } from '@/core/frame/plan';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { noisyPlane, testHeap } from '@/kernels/testing';
import { Compositor } from './compositor';
import { SourceHistory } from './source-frame';
import { plainRasterizer, wholeVideo } from './testing';

let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});
const W = 96;
const H = 64;
const video = (more: Partial<VideoLayer> = {}) => wholeVideo({ width: W, height: H }, more);

/** Pictures that follow each other; each differs from the one before by a bit at some places. */
function changed(base: Uint8Array, changes: readonly (readonly number[])[], bit: number) {
  let bytes = base;
  return changes.map((places) => {
    bytes = bytes.slice();
    for (const place of places) bytes[place]! ^= bit;
    return bytes;
  });
}

describe('a still picture', () => {
  /** The same pictures in turn through one compositor, and each through a new one. */
  function both(pictures: readonly Uint8Array[], layer: VideoLayer) {
    const plan: FramePlan = {
      size: { width: W, height: H },
      background: '#000000',
      layers: [layer],
    };
    const target = allocateFrame(heap, W, H);
    const kept = new Compositor(heap, plainRasterizer);
    const history = new SourceHistory();
    let frames = [allocateFrame(heap, 128, 96), allocateFrame(heap, 128, 96)] as [
      PlanarFrame,
      PlanarFrame,
    ];
    const run = pictures.map((bytes) => {
      frames = [frames[1], frames[0]];
      frameBytes(heap, frames[0]).set(bytes);
      const source = history.push(frames[0], null);
      kept.compose(plan, () => source, target);
      return frameBytes(heap, target).slice();
    });
    const alone = pictures.map((bytes) => {
      frameBytes(heap, frames[0]).set(bytes);
      new Compositor(heap, plainRasterizer).compose(
        plan,
        () => ({ picture: frames[0], part: null, before: null, marks: null }),
        target,
      );
      return frameBytes(heap, target).slice();
    });
    [...frames, target].forEach((frame) => releaseFrame(heap, frame));
    return { run, alone };
  }
  const view = (x: number, y: number, width: number, more: Partial<VideoLayer> = {}) =>
    video({
      footage: { width: 128, height: 96 },
      source: { x, y, width, height: (width * H) / W },
      ...more,
    });

  test('is scaled anew only where it changed, with the same result to the bit, in any view', () => {
    const base = noisyPlane(128, 144, 1);
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.nat(128 * 144 - 1), { maxLength: 5 }), { minLength: 3, maxLength: 7 }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 30, max: 108, noNaN: true }),
        fc.boolean(),
        (changes, from, width, adjusted) => {
          const { run, alone } = both(
            changed(base, changes, 0x55),
            view(from, from / 2, width, {
              adjust: adjusted ? { ...UNADJUSTED, brightness: 0.1, contrast: 1.2 } : null,
            }),
          );
          run.forEach((picture, i) => expect(Buffer.compare(picture, alone[i]!)).toBe(0));
        },
      ),
      { numRuns: 60 },
    );
  });

  test('has its text rebuilt only where it changed, with the same result to the bit', () => {
    const base = noisyPlane(128, 144, 1);
    fc.assert(
      fc.property(
        // Of more changes in a row it would be thought to move.
        fc.array(fc.array(fc.nat(128 * 144 - 1), { maxLength: 5 }), { minLength: 2, maxLength: 3 }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 30, max: 90, noNaN: true }),
        fc.boolean(),
        (changes, from, width, masked) => {
          const more = masked ? ({ mask: { shape: 'ellipse', feather: 0 } } as const) : {};
          const { run, alone } = both(
            changed(base, changes, 0x80),
            view(from, from / 2, width, { crisp: true, adjust: null, ...more }),
          );
          run.forEach((picture, i) => expect(Buffer.compare(picture, alone[i]!)).toBe(0));
        },
      ),
      { numRuns: 40 },
    );
  });

  test('that is shown twice is the same, and another one in between is not mistaken for it', () => {
    const [a, b] = [noisyPlane(128, 144, 1), noisyPlane(128, 144, 2)];
    const { run, alone } = both([a, a, a, b, a, b, b], view(3.3, 2.1, 90));
    run.forEach((picture, i) => expect(Buffer.compare(picture, alone[i]!)).toBe(0));
  });
});
