import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pointerAt } from '@/core/telemetry/sample';
import { framesPerSecond } from '@/core/time/ticks';
import { loadKernels } from '@/server/media/node-host';
import { PictureStream } from '@/server/media/picture-stream';
import { probeMedia } from '@/server/media/probe';
import { inTiles } from '@/sight/pictures';
import { ScreenSighting } from '@/sight/sight';
import { judgePresses } from './found-presses';
import { median, table } from './measure';
import { makeRecording, type MadeRecording, type RecordingPlan } from './recordings';

const x264 = (quality: number) => [
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', String(quality)],
];
const LIGHT = { size: 22, fill: '#fff', rim: '#000' };
const DARK = { size: 26, fill: '#000', rim: '#fff' };
const HD = { width: 1920, height: 1080, fps: 30, seconds: 20, changes: false, distractors: [] };
const SMALL = { ...HD, width: 1280, height: 720, fps: 15 };
const REALTIME = ['-c:v', 'libvpx', '-b:v', '1500k', '-deadline', 'realtime', '-cpu-used', '8'];

/** The recordings that are reported; none of them was looked at while the method was made. */
const PLANS: readonly Omit<RecordingPlan, 'file'>[] = [
  { ...HD, name: 'plain page', seed: 101, ground: 'light', pointer: LIGHT, codec: x264(23) },
  {
    ...HD,
    ...{ name: 'dark, shapes change, caret', seed: 102, ground: 'dark', pointer: DARK },
    ...{ changes: true, distractors: ['caret'], codec: x264(23) },
  },
  {
    ...HD,
    ...{ name: 'text, scrolling, spinner', seed: 103, ground: 'text', pointer: LIGHT },
    ...{ changes: true, distractors: ['caret', 'spinner', 'scroll'], codec: x264(24) },
  },
  {
    ...HD,
    ...{ name: 'photographs, film, coarse', seed: 104, ground: 'photo', pointer: LIGHT },
    ...{ distractors: ['video'], codec: x264(28) },
  },
  {
    ...SMALL,
    ...{ name: 'VP8, 15 a second', seed: 105, ground: 'light', pointer: DARK },
    ...{ distractors: ['video', 'scroll'], codec: REALTIME },
  },
  {
    ...HD,
    ...{ name: 'scaled to a half', seed: 106, width: 2560, height: 1440, scale: 0.5 },
    ...{ ground: 'light', pointer: { ...DARK, size: 40 }, codec: x264(26) },
  },
];

function judge({ track: truth, hidden }: MadeRecording, speed: number, sighting: Sighted) {
  const { path, pictures, looks, track } = sighting;
  const step = truth.samples[1]![0];
  const errors: number[] = [];
  let [visible, saidHidden, rightlyHidden] = [0, 0, 0];
  for (const [i, { at }] of path.entries()) {
    const { ms } = pictures[i]!;
    const isHidden = hidden.some(([from, to]) => ms >= from && ms < to);
    if (!at) {
      saidHidden++;
      rightlyHidden += isHidden ? 1 : 0;
    }
    if (isHidden) continue;
    visible++;
    // The picture that is shown is the one that has begun.
    const want = pointerAt(truth, Math.floor((ms + 2) / step) * step);
    const spot = at && looks[at.look]!.hotspot;
    if (spot) errors.push(Math.hypot(at.x + spot.x - want.x, at.y + spot.y - want.y));
  }
  const presses = judgePresses(truth, track);
  const share = (part: number, all: number) => (all ? `${Math.round((100 * part) / all)} %` : '-');
  return [
    errors.length ? `${median(errors).toFixed(1)} px` : '-',
    share(errors.filter((error) => error <= 6).length, visible),
    share(rightlyHidden, saidHidden),
    share(presses.right, presses.said),
    share(presses.found, presses.made),
    `${speed.toFixed(1)}×`,
  ];
}

type Sighted = ReturnType<ScreenSighting['run']>;

/** How well and how fast the pointer is found in recordings whose pointer is known. */
export async function benchPointer(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-bench-'));
  const rows: string[][] = [];
  try {
    for (const plan of PLANS) {
      const file = join(folder, `${plan.seed}.${plan.codec === REALTIME ? 'webm' : 'mp4'}`);
      const made = await makeRecording({ ...plan, file });
      const { facts } = await probeMedia(file);
      const rate = facts.frameRate!;
      const luma = inTiles(facts);
      const started = performance.now();
      const sighting = new ScreenSighting(await loadKernels(), facts, rate, {
        open: (start) => new PictureStream(file, facts, { start, rate, luma }),
        pictures: plan.seconds * framesPerSecond(rate),
        onProgress: () => {},
      }).run();
      const took = (performance.now() - started) / 1000;
      rows.push([plan.name, ...judge(made, plan.seconds / took, sighting)]);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  const head = [
    'error, median',
    'within 6 px',
    'hidden, right',
    'presses, right',
    'presses, found',
  ];
  console.log(table(['recording', ...head, 'real time'], rows));
}
