import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { UNPOSED } from '@/core/callout/keyframes';
import { kindOf, type CalloutKindName } from '@/core/callout/kinds';
import { placeFootage } from '@/core/edit/place';
import { planFrame } from '@/core/frame/plan-frame';
import { createProject } from '@/core/project/create';
import type { Callout, Project } from '@/core/project/model';
import { intersect, type Rect, type Size } from '@/core/scale/rect';
import { frameDuration, rateFromNumber, secondsToTicks, type FrameRate } from '@/core/time/ticks';
import type { Luma } from '@/core/vision/luma';
import { FrameRenderer, type RenderTask } from '@/server/export/render-frames';
import { lumaRecording } from '@/server/media/luma-recording';
import { loadKernels, nodeRasterizer } from '@/server/media/node-host';
import { readPicture } from '@/server/media/read-text';
import { followContent } from '@/sight/follow-path';
import { timeComposing } from './composing';
import { inRecording, markedIn, MOVING } from './follow';
import { median, table } from './measure';
import { makeMoving, markedRect, markedText, type MovingPlan, type Truth } from './moving-pages';
import { readRecordings } from './scenes';

const WAYS = ['blur', 'mosaic', 'solid'] as const;
const SIZES: readonly Size[] = [
  { width: 1920, height: 1080 },
  { width: 1280, height: 720 },
];
/** Every so many frames the picture is read. */
const EVERY = 20;
/** So many signs in a row, as they stand in what is covered, were read and not guessed. */
const READ = 4;

/** Whether a text has a run of what is covered. */
function tells(text: string, covered: string): boolean {
  const plain = text.toLowerCase();
  for (let i = 0; i + READ <= covered.length; i++)
    if (plain.includes(covered.slice(i, i + READ))) return true;
  return false;
}

let ids = 0;
const newId = () => `bench-${ids++}`;

const callout = (kind: CalloutKindName, size: Size, seconds: number, more: object): Callout =>
  ({
    ...kindOf({ kind }).create!({ at: { x: 300, y: 300 }, size, frame: size }),
    ...{ id: newId(), start: 0, end: secondsToTicks(seconds), ...UNPOSED, ...more },
  }) as unknown as Callout;

/** A recording with callouts, as it is exported. */
function taskOf(
  { sources, originals }: Awaited<ReturnType<typeof readRecordings>>,
  output: Size,
  rate: FrameRate,
  callouts: (project: Project) => Callout[],
): RenderTask {
  const project = createProject(1920, 1080, rate);
  placeFootage(project, sources.footage.screen!, 0, newId);
  project.callouts.push(...callouts(project));
  return { project, sources, originals, output, rate };
}

/** Where what is covered lies in an exported picture, with some room around it. */
function placeIn({ x, y, scale }: Truth, plan: MovingPlan, output: Size): Rect {
  const { width, height } = markedRect();
  const ratio = output.height / plan.height;
  const room = 6;
  return intersect(
    {
      ...{ x: Math.floor(x * ratio) - room, y: Math.floor(y * ratio) - room },
      width: Math.ceil(width * scale * ratio) + 2 * room,
      height: Math.ceil(height * scale * ratio) + 2 * room,
    },
    { x: 0, y: 0, ...output },
  );
}

/** In how many of the pictures that were read, something of what is covered could be. */
async function readable(
  task: RenderTask,
  plan: MovingPlan,
  truth: readonly Truth[],
): Promise<{ read: number; looked: number }> {
  const heap = await loadKernels();
  using renderer = new FrameRenderer(task, heap, await nodeRasterizer(), { threads: 1 });
  const covered = markedText();
  let [read, looked] = [0, 0];
  for (let n = 0; n < truth.length; n += EVERY) {
    const is = truth[n]!;
    if (is.seen < 0.2) continue;
    const time = n * frameDuration(task.rate);
    const { y } = renderer.render(n, planFrame(task.project, task.sources, time, task.output));
    const by = plan.scale ?? 1;
    const place = placeIn({ ...is, x: is.x / by, y: is.y / by }, plan, task.output);
    if (place.width < 8 || place.height < 8) continue;
    const [left, top] = [Math.max(0, Math.floor(place.x)), Math.max(0, Math.floor(place.y))];
    const picture: Luma = {
      data: heap.bytes(y.at, y.stride * y.height).slice(top * y.stride + left),
      ...{ stride: y.stride, width: Math.floor(place.width), height: Math.floor(place.height) },
    };
    looked++;
    if (readPicture(picture).some(({ text }) => tells(text, covered))) read++;
  }
  return { read, looked };
}

/** One of each of eight kinds that point, at rest. */
const EIGHT = ['text', 'note', 'arrow', 'box', 'ellipse', 'highlight', 'count', 'keycaps'] as const;

/**
 * In how many pictures something can be read that a followed cover hides, in all scenes and ways;
 * and what eight callouts cost in a picture of the preview's size.
 */
export async function benchCovers(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-covers-'));
  const rows: string[][] = [];
  try {
    for (const plan of MOVING) {
      const file = join(folder, `made.${plan.codec.includes('libvpx') ? 'webm' : 'mp4'}`);
      const truth = await makeMoving(plan, file);
      const recordings = await readRecordings({ screen: { path: file, role: 'screen' } });
      const { facts } = recordings.originals.screen!;
      const marked = markedIn(truth);
      const rect = inRecording(markedRect(), truth[marked]!, plan.scale ?? 1);
      const ms = (marked * 1000) / plan.fps;
      const time = { ms, from: 0, to: plan.seconds * 1000 };
      const heap = await loadKernels();
      const path = followContent(heap, rect, time, lumaRecording(file, facts), () => {});
      if (!path) {
        rows.push([plan.name, 'not followed']);
        continue;
      }
      const rate = rateFromNumber(plan.fps);
      const anchor = { to: 'track', footageId: 'screen', path };
      const told: string[] = [];
      for (const size of SIZES)
        for (const way of ['bare', ...WAYS]) {
          const task = taskOf(recordings, size, rate, () =>
            way === 'bare' ? [] : [callout('cover', facts, plan.seconds, { rect, way, anchor })],
          );
          const { read, looked } = await readable(task, plan, truth);
          told.push(`${read} of ${looked}`);
        }
      rows.push([plan.name, ...told]);
    }
    const head = SIZES.flatMap(({ height }) =>
      ['bare', ...WAYS].map((way) => `${way}, ${height}p`),
    );
    console.log(`\n## Covers\n\nPictures in which something covered can be read.\n`);
    console.log(table(['scene', ...head], rows));
    await timeEight(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Composes a recording at the preview's size, bare and with eight callouts. */
async function timeEight(folder: string): Promise<void> {
  const [plan] = MOVING;
  const file = join(folder, 'eight.mp4');
  await makeMoving({ ...plan!, seconds: 2 }, file);
  const recordings = await readRecordings({ screen: { path: file, role: 'screen' } });
  const { facts } = recordings.originals.screen!;
  const rate = rateFromNumber(plan!.fps);
  const output = SIZES[1]!;
  const times = Array.from({ length: 50 }, (_, i) => (i + 5) * frameDuration(rate));
  const anchor = { to: 'footage', footageId: 'screen' };
  const eight = () =>
    EIGHT.map((kind, i) =>
      callout(kind, facts, 2, {
        ...{ anchor, entrance: 'none', exit: 'none' },
        pose: { ...UNPOSED.pose, dx: 60 * i, dy: 40 * i },
      }),
    );
  const cost = async (callouts: () => Callout[]) =>
    median((await timeComposing(taskOf(recordings, output, rate, callouts), times)).compose);
  const [bare, all] = [await cost(() => []), await cost(eight)];
  console.log(
    `\nEight callouts at 720p: ${all.toFixed(2)} ms a picture, ${bare.toFixed(2)} without them.`,
  );
}
