import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shiftAt, shiftsAround, type FollowPath } from '@/core/callout/follow-path';
import { intersect, type Rect } from '@/core/scale/rect';
import { followFile } from '@/server/follow/follow-file';
import { probeMedia } from '@/server/media/probe';
import { median, table } from './measure';
import { makeMoving, markedRect, type MovingPlan, type Truth } from './moving-pages';
import * as scenes from './moving-scenes';

const x264 = (quality: number) => [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', String(quality)],
];
const VP8 = ['-c:v', 'libvpx', '-b:v', '2500k', '-deadline', 'realtime', '-cpu-used', '8'];
const HD = { width: 1920, height: 1080, fps: 30, seconds: 8, codec: x264(23) };
const { scrolling, toAndFro, wheel } = scenes;

/** The recordings that are followed through; what is marked lies in row 12 of a table. */
export const MOVING: readonly MovingPlan[] = [
  { ...HD, name: 'scrolled slowly', scene: scrolling(toAndFro(300, 100, 15)) },
  { ...HD, name: 'scrolled fast, out of sight', scene: scrolling(toAndFro(1900, 40, 12)) },
  { ...HD, name: 'by the wheel', scene: scrolling(wheel(120, 6, 9)), codec: x264(28) },
  { ...HD, name: 'window dragged', scene: scenes.dragged },
  { ...HD, name: 'page magnified', scene: scenes.zoomed },
  { ...HD, name: 'partly hidden', scene: scenes.hidden },
  { ...HD, name: 'page replaced, dark', scene: scenes.replaced },
  {
    ...{ ...HD, width: 1280, height: 720, fps: 15, dark: true, codec: VP8 },
    ...{ name: 'VP8, 15 a second, dark', scene: scrolling(toAndFro(400, 30, 10)) },
  },
  {
    ...{ ...HD, width: 2560, height: 1440, scale: 0.75, codec: x264(26) },
    ...{ name: 'scaled to three quarters', scene: scrolling(toAndFro(500, 60, 10)) },
  },
];

/** What is followed was marked where it is seen whole, not at the beginning: both ways are gone. */
export function markedIn(truth: readonly Truth[]): number {
  const middle = Math.round(truth.length * 0.3);
  return middle + truth.slice(middle).findIndex(({ seen }) => seen === 1);
}

export const inRecording = ({ width, height }: Rect, { x, y, scale }: Truth, by: number): Rect => ({
  ...{ x, y },
  ...{ width: width * scale * by, height: height * scale * by },
});

const moved = ({ x, y, width, height }: Rect, by: { dx: number; dy: number; scale: number }) => ({
  ...{ x: x * by.scale + by.dx, y: y * by.scale + by.dy },
  ...{ width: width * by.scale, height: height * by.scale },
});

const share = (part: number, all: number) => (all ? `${((100 * part) / all).toFixed(1)} %` : '-');

/** The share of a rectangle that others cover, by points of a grid. */
function covered(rect: Rect, by: readonly Rect[]): number {
  let [all, under] = [0, 0];
  for (let v = 0.5; v < 8; v++)
    for (let u = 0.5; u < 24; u++) {
      const [x, y] = [rect.x + (rect.width * u) / 24, rect.y + (rect.height * v) / 8];
      all++;
      if (by.some((b) => x >= b.x && y >= b.y && x <= b.x + b.width && y <= b.y + b.height))
        under++;
    }
  return under / all;
}

function judge(path: FollowPath, truth: readonly Truth[], plan: MovingPlan) {
  const { fps, scale: by = 1, width, height } = plan;
  const marked = markedIn(truth);
  const rect = inRecording(markedRect(), truth[marked]!, by);
  const errors: number[] = [];
  let [visible, found, lost, rightly, bare, over, gone] = [0, 0, 0, 0, 0, 0, 0];
  truth.forEach((is, i) => {
    const ms = (i * 1000) / fps;
    const shift = shiftAt(path, ms);
    const own = inRecording(markedRect(), is, by);
    const said = shift?.sure ?? false;
    if (is.seen >= 0.5) {
      visible++;
      if (said) {
        found++;
        const at = moved(rect, shift!);
        errors.push(
          Math.hypot(
            at.x + at.width / 2 - own.x - own.width / 2,
            at.y + at.height / 2 - own.y - own.height / 2,
          ),
        );
      }
    }
    if (!said) {
      lost++;
      if (is.seen < 0.5) rightly++;
    }
    const covers = shiftsAround(path, ms).map((one) => moved(rect, one));
    const inSight = intersect(own, { x: 0, y: 0, width: width * by, height: height * by });
    if (is.seen > 0.05 && covered(inSight, covers) < 0.97) bare++;
    if (is.seen === 0) gone++;
    if (is.seen === 0 && covers.length) over++;
  });
  errors.sort((a, b) => a - b);
  return [
    errors.length ? `${median(errors).toFixed(2)} px` : '-',
    share(errors.filter((error) => error <= 2).length, visible),
    share(rightly, lost),
    String(bare),
    gone ? share(over, gone) : '-',
    share(found, visible),
  ];
}

/** How well and how fast content is followed in recordings in which its way is known. */
export async function benchFollow(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-bench-'));
  const rows: string[][] = [];
  try {
    for (const plan of MOVING) {
      const file = join(folder, plan.codec === VP8 ? 'made.webm' : 'made.mp4');
      const truth = await makeMoving(plan, file);
      const { facts } = await probeMedia(file);
      const marked = markedIn(truth);
      const rect = inRecording(markedRect(), truth[marked]!, plan.scale ?? 1);
      const started = performance.now();
      const ms = (marked * 1000) / plan.fps;
      const task = { ...rect, ms, from: 0, to: plan.seconds * 1000 };
      const path = await followFile(file, facts, task, () => {});
      const took = (performance.now() - started) / 1000;
      const speed = `${(plan.seconds / took).toFixed(1)}×`;
      rows.push([plan.name, ...(path ? judge(path, truth, plan) : ['-']), speed]);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  const head = [
    ...['error, median', 'within 2 px', 'lost, right'],
    ...['pictures bare', 'covered when gone', 'found'],
  ];
  console.log(table(['recording', ...head, 'real time'], rows));
}
