import { planFrame } from '@/core/frame/plan-frame';
import type { FramePlan, Layer } from '@/core/frame/plan';
import { leaks, readableShare, type LeakSpot } from '@/core/proof/leaks';
import { sourceTime } from '@/core/project/clip-time';
import { sceneAt, screenShowing, type ScreenView } from '@/core/scene/scene';
import { intersect, isWithin, padded, type Rect } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import { frameDuration, framesPerSecond, rateFromNumber, ticksToSeconds } from '@/core/time/ticks';
import { BLOCK, rescaled, type Appearance } from '@/core/vision/follow/appearance';
import { likenessAt } from '@/core/vision/follow/likeness';
import type { Luma } from '@/core/vision/luma';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import { inTiles } from '@/sight/pictures';
import { eachSighting } from '@/sight/sightings-of';
import { FrameRenderer, type Original, type RenderTask } from '../export/render-frames';
import { LumaStream } from '../media/luma-stream';
import { loadKernels, nodeRasterizer } from '../media/node-host';
import { hiddenBy, type Hidden } from './covered';

/** An exported file, and what it was made of. */
export interface LeakCheck {
  readonly task: RenderTask;
  /** The export itself. */
  readonly video: Original;
  /** The instant of the timeline at which it begins, in ticks. */
  readonly origin: number;
  readonly frames: number;
}

/** What came of it. */
export interface CheckedCovers {
  readonly spots: readonly LeakSpot[];
  /**
   * The covers that could be held against what they hide: not those that stand on the frame or lie
   * on nothing that could be told again.
   */
  readonly checked: readonly string[];
}

const USUAL_RATE = rateFromNumber(30);
/** A place shows what is to be hidden, before anything lies over it, with this likeness. */
const SHOWS = 0.5;
/** Sizes of one content that differ by less than this part are one. */
const SIZES = 200;

/** Where what a cover is to hide is seen in its recording, picture by picture. */
interface Seen extends Hidden {
  readonly appearance: Appearance;
  readonly places: readonly (readonly Point[])[];
  readonly fps: number;
}

/** Looks through a recording for what a cover is to hide; null where that shows nothing. */
function lookFor(heap: KernelHeap, hidden: Hidden, { path, facts }: Original): Seen | null {
  const rate = facts.frameRate ?? USUAL_RATE;
  const luma = inTiles(facts);
  const places: (readonly Point[])[] = [];
  const appearance = eachSighting(
    heap,
    hidden.rect,
    hidden.ms,
    { size: facts, rate, open: (start) => new LumaStream(path, facts, { start, rate, luma }) },
    (index, found) => (places[index] = found),
  );
  return appearance && { ...hidden, appearance, places, fps: framesPerSecond(rate) };
}

/** The recording alone, without all that lies over it. */
const bareOf = (plan: FramePlan, footageId: string): FramePlan => ({
  ...plan,
  layers: plan.layers.filter(
    (layer: Layer) =>
      layer.kind === 'mix' || (layer.kind === 'video' && layer.footageId === footageId),
  ),
});

/**
 * Compares an exported file with the recordings that it was made of: wherever one of them shows what
 * a cover is to hide, nothing of it may be readable in the export. What is to be hidden is looked for
 * in all pictures of its recording, whatever the cover itself knows of where it went.
 *
 * @param onProgress is told the share that is done, 0 to 1
 */
export async function checkCovers(
  { task, video, origin, frames }: LeakCheck,
  onProgress: (share: number) => void,
): Promise<CheckedCovers> {
  const heap = await loadKernels();
  const { project, sources, originals } = task;
  const all = hiddenBy(project, sources);
  const seen: Seen[] = [];
  for (const [i, hidden] of all.entries()) {
    const original = originals[hidden.footageId];
    const found = original && lookFor(heap, hidden, original);
    if (found) seen.push(found);
    onProgress(((i + 1) / all.length) * 0.5);
  }
  const spots: LeakSpot[] = [];
  const checked = seen.map(({ coverId }) => coverId);
  if (!seen.length) return { spots, checked };
  const { output, rate } = task;
  const frame = frameDuration(rate);
  const size = inTiles(video.facts);
  const at = heap.allocate(size.width * size.height);
  using shown = new LumaStream(video.path, video.facts, { start: 0, rate, luma: size });
  const rasterizer = await nodeRasterizer();
  const renderers = new Map(
    [...new Set(seen.map(({ footageId }) => footageId))].map((id) => [
      id,
      new FrameRenderer(task, heap, rasterizer, { threads: 1 }),
    ]),
  );
  const expected = new Expected();
  try {
    for (let n = 0; n < frames && shown.read(heap.bytes(at, size.width * size.height)); n++) {
      const time = origin + n * frame;
      const scene = sceneAt(project, sources, time, output);
      const plan = planFrame(project, sources, time, output);
      const regions = plan.layers.flatMap((layer) => (layer.kind === 'region' ? [layer.area] : []));
      for (const [footageId, renderer] of renderers) {
        const screen = screenShowing(scene, footageId);
        if (!screen) continue;
        const here = seen.filter((one) => one.footageId === footageId);
        const bare = renderer.render(n, bareOf(plan, footageId));
        const naked = lumaOf(heap, bare.y);
        const exported: Luma = {
          data: heap.bytes(at, size.width * size.height),
          ...{ width: output.width, height: output.height, stride: size.width },
        };
        for (const one of here)
          for (const rect of expected.in(one, screen, naked, time)) {
            const share = readableShare(naked, exported, rect);
            if (!leaks(share)) continue;
            const covered = regions.some((area) => isWithin(padded(rect, -2), area));
            spots.push({ frame: n, coverId: one.coverId, rect, share, covered });
          }
      }
      onProgress(0.5 + (0.5 * (n + 1)) / frames);
    }
  } finally {
    for (const renderer of renderers.values()) renderer[Symbol.dispose]();
    heap.release(at);
  }
  return { spots, checked };
}

const lumaOf = (heap: KernelHeap, { at, stride, width, height }: Plane): Luma => ({
  data: heap.bytes(at, stride * height),
  ...{ width, height, stride },
});

/** Where contents are in pictures of the export, at whatever size they have there. */
class Expected {
  private readonly sizes = new Map<string, Appearance>();

  /** The places at which a picture without covers shows a content, in its pixels. */
  in(seen: Seen, screen: ScreenView, naked: Luma, time: number): Rect[] {
    const ms = ticksToSeconds(sourceTime(screen.clip, time)) * 1000;
    const index = Math.floor((ms * seen.fps) / 1000 + 1e-3);
    const { width, height } = seen.appearance;
    const found = new Map<string, Rect>();
    // Which of two pictures is shown is a matter of rounding: it is told by what is there.
    for (const near of [index, index - 1, index + 1])
      for (const { x, y } of seen.places[near] ?? []) {
        const from = screen.toOutput({ x, y });
        const rect = intersect(
          { ...from, width: width * screen.scale, height: height * screen.scale },
          screen.stage,
        );
        if (rect.width < 2 || rect.height < 2) continue;
        if (this.shows(seen, screen.scale, naked, from)) found.set(`${x} ${y}`, rect);
      }
    return [...found.values()];
  }

  private shows({ coverId, appearance }: Seen, scale: number, naked: Luma, at: Point): boolean {
    const size = Math.round(scale * SIZES) / SIZES;
    // Too small to be told; what is readable of it is asked anyway.
    if (Math.min(appearance.width, appearance.height) * size < BLOCK) return true;
    const name = `${coverId} ${size}`;
    const resized = this.sizes.get(name) ?? rescaled(appearance, size);
    this.sizes.set(name, resized);
    const [x, y] = [Math.round(at.x), Math.round(at.y)];
    return [0, -1, 1].some((dy) =>
      [0, -1, 1].some((dx) => likenessAt(resized, naked, x + dx, y + dy).mean >= SHOWS),
    );
  }
}
