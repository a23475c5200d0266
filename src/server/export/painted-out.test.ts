import { rmSync } from 'node:fs';
import { addSpan } from '@/core/edit/spans';
import { newLook, pointerSpan, type PointerLook } from '@/core/pointer/model';
import { beneathAt, pointerBox } from '@/core/pointer/beneath';
import { secondsToTicks } from '@/core/time/ticks';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { control, file, settings, taskOf } from '../testing/export';
import { ffmpeg } from '../testing/media';
import { makePointed, menuBox, OPENS, pointedAt, SIZE } from '../testing/pointed';
import { exportFile } from './export-file';

const SECONDS = 8;
const RECORDED = 'pointed.mp4';

const track: PointerTrack = {
  ...{ format: 'vistum-pointer', version: 2, ...SIZE, source: 'found', events: [] },
  // Of the arrow that is drawn there.
  reach: { left: 0, top: 0, right: 24, bottom: 38 },
  samples: Array.from({ length: SECONDS * 60 }, (_, i) => {
    const { x, y } = pointedAt(i / 60);
    return [(i * 1000) / 60, x, y] as const;
  }),
};
const opens = { kind: 'opening', start: OPENS * 1000, end: OPENS * 1000 + 34 } as const;
const sight: ScreenSight = {
  ...{ ...SIZE, length: SECONDS * 1000, pointer: track, pages: [] },
  activities: [{ ...opens, box: menuBox(), scrolled: 0 }],
};

beforeAll(() => {
  makePointed(file(RECORDED), SECONDS);
  makePointed(file('bare.mp4'), SECONDS, { pointed: false });
});
afterAll(() => rmSync(file(''), { recursive: true, force: true }));

/** Luma of all pictures of a file, in the recording's size. */
const lumaOf = (path: string): Buffer =>
  ffmpeg(
    ...['-i', path, '-r', '30', '-vf', `scale=${SIZE.width}:${SIZE.height}:flags=area`],
    ...['-pix_fmt', 'gray', '-f', 'rawvideo', '-'],
  );

/** What an export with some looks of the pointer shows. */
async function exported(name: string, looks: readonly PointerLook[]): Promise<Buffer> {
  const task = await taskOf({ [RECORDED]: 'screen' }, (p) => {
    const range = { start: 0, end: secondsToTicks(SECONDS) };
    if (looks.length) addSpan(p, 'pointer', pointerSpan('looks', range, looks));
  });
  const sources = {
    ...task.sources,
    pointers: { [RECORDED]: track },
    sights: { [RECORDED]: sight },
  };
  await exportFile({ ...task, sources }, settings, file(`work-${name}`), file(name), control());
  return lumaOf(file(name));
}

/** How far each picture is from that without the pointer where the pointer is, mean of luma. */
function apart(seen: Buffer, bare: Buffer): number[] {
  const count = SIZE.width * SIZE.height;
  return Array.from({ length: Math.floor(seen.length / count) }, (_, n) => {
    const box = pointerBox(track, track.reach!, (n * 1000) / 30);
    const [left, top] = [Math.max(0, Math.ceil(box.x)), Math.max(0, Math.ceil(box.y))];
    const right = Math.min(SIZE.width, box.x + box.width);
    const bottom = Math.min(SIZE.height, box.y + box.height);
    let sum = 0;
    let all = 0;
    for (let y = top; y < bottom; y++)
      for (let x = left; x < right; x++, all++)
        sum += Math.abs(
          seen[n * count + y * SIZE.width + x]! - bare[n * count + y * SIZE.width + x]!,
        );
    return sum / all;
  });
}

test('a pointer that the recording shows is painted out by other pictures, and nothing else changes', async () => {
  const bare = lumaOf(file('bare.mp4'));
  const plain = apart(await exported('plain.mp4', []), bare);
  const hidden = apart(await exported('hidden.mp4', [newLook('hidden')]), bare);
  expect(hidden).toHaveLength(SECONDS * 30);
  const isKnown = (n: number) => beneathAt(track, sight, (n * 1000) / 30) !== null;
  const known = hidden.flatMap((_, n) => (isKnown(n) ? [n] : []));
  // All but around what opens beneath it.
  expect(known.length / hidden.length).toBeGreaterThan(0.75);
  for (const n of known) {
    expect(plain[n]).toBeGreaterThan(30);
    // Codecs leave a trace of what was there some pictures ago.
    expect(hidden[n]).toBeLessThan(8);
  }
  const exact = known.filter((n) => hidden[n]! < 1);
  expect(exact.length / known.length).toBeGreaterThan(0.5);
  for (const n of hidden.keys()) if (!isKnown(n)) expect(hidden[n]).toBeCloseTo(plain[n]!, 0);
});
