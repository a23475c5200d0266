import { presenceAt } from '../callout/presence';
import { strokePaths } from '../callout/paths';
import { hidesScreen, placeScreen, type Placement } from '../layout/rectangles';
import type { Callout, Clip, DimAround, FootageLook, Lane, Project } from '../project/model';
import { sourceTime } from '../project/clip-time';
import { isLaneOn, isPictureLane, lookOf, spanAt } from '../project/query';
import type { FootageFacts, Sources } from '../project/sources';
import {
  frontmost,
  presenterOf,
  sceneAt,
  screenOf,
  withPicture,
  type Scene,
  type Shown,
} from '../scene/scene';
import { fitSize, intersect, type InFootage, type InOutput, type Size } from '../scale/rect';
import { wholeView } from '../scale/sharpness';
import { pointerAt, shapeAt } from '../telemetry/sample';
import { contains } from '../time/ranges';
import { crossingAt } from '../transition/crossing';
import { ticksToSeconds, type Ticks } from '../time/ticks';
import { isSolid, PLAIN_VIDEO, type FramePlan, type Layer, type VideoLayer } from './plan';
import { transitionLayers } from './transition-layers';

/** Other looks at the same instant, for the interface. */
export interface PlanView {
  /** The screen without its framing. */
  readonly whole?: boolean;
  /** The presenter's recording alone: as it is, or its matte. */
  readonly presenter?: 'raw' | 'matte';
}

/**
 * Describes the picture at an instant for an output size, without a pixel being
 * touched. The preview and the export both draw what this says and nothing else.
 *
 * @param time timeline ticks
 * @param output output pixels; of the project's shape, or bars are left in the background colour
 */
export function planFrame(
  project: Project,
  sources: Sources,
  time: Ticks,
  output: Size,
  view: PlanView = {},
): FramePlan {
  const scene = sceneAt(project, sources, time, output, { whole: view.whole ?? false });
  const layers = view.presenter ? presenterAlone(scene, view.presenter) : laneLayers(scene);
  const background = scene.layout.background ?? project.canvas.background;
  return { size: output, background, layers };
}

/** The picture lanes from back to front, from the last one on that hides all behind it. */
function laneLayers(scene: Scene): Layer[] {
  const { project } = scene;
  const front = project.lanes.filter((lane) => isPictureLane(lane) && isLaneOn(project, lane));
  const alone = hidesScreen(scene.layout, scene.there)
    ? front.find((l) => l.kind === 'presenter' && crossingAt(l, scene.time, scene.sources))
    : undefined;
  const seen: Layer[][] = [];
  for (const lane of front) {
    // With the presenter alone, only screens that lie in front of them are seen.
    if (alone && lane.kind === 'screen' && front.indexOf(lane) > front.indexOf(alone)) continue;
    const layers = layersOfLane(scene, lane);
    seen.unshift(layers);
    if (layers.some((layer) => covers(layer, scene.output))) break;
  }
  return seen.flat();
}

/** Whether a layer hides everything behind it. */
function covers(layer: Layer, { width, height }: Size): boolean {
  if (layer.kind !== 'video' || !isSolid(layer)) return false;
  const { destination: d } = layer;
  return d.x <= 0 && d.y <= 0 && d.x + d.width >= width && d.y + d.height >= height;
}

/** The layers of one lane: of its clip, or of both clips of a transition. */
function layersOfLane(scene: Scene, lane: Lane): Layer[] {
  const crossing = crossingAt(lane, scene.time, scene.sources);
  if (!crossing) return [];
  const of = (clip: Clip | null): Layer[] => {
    const found = withPicture(scene.sources, clip);
    if (!found) return [];
    return lane.kind === 'presenter' ? presenterLayers(scene, found) : screenLayers(scene, found);
  };
  const { from, to, transition, amount } = crossing;
  return transition ? transitionLayers(scene.output, of(from), of(to), transition, amount) : of(to);
}

/** Height of a drawn pointer as a share of the frame's height, where nothing is magnified. */
const POINTER_HEIGHT = 0.035;
const MARKER_PEN_OPACITY = 0.4;

/** The change of brightness that was set for a recording, if any. */
function adjustOf(look: FootageLook | null): VideoLayer['adjust'] {
  return look && (look.brightness !== 0 || look.contrast !== 1)
    ? { brightness: look.brightness, contrast: look.contrast }
    : null;
}

/** A transition may ask for a moment before or after a recording by a rounding. */
const withinFootage = (time: Ticks, footage: FootageFacts): Ticks =>
  Math.min(Math.max(0, time), Math.max(0, footage.duration - 1));

function video(
  scene: Scene,
  clip: Clip,
  footage: FootageFacts,
  placement: Placement,
  more: Partial<VideoLayer>,
): VideoLayer {
  const look = lookOf(scene.project, footage.id);
  return {
    kind: 'video',
    clipId: clip.id,
    footageId: footage.id,
    // A still has one picture, whatever the time.
    time: footage.kind === 'image' ? 0 : withinFootage(sourceTime(clip, scene.time), footage),
    speed: footage.kind === 'image' ? 0 : clip.speed,
    footage: { width: footage.width, height: footage.height },
    ...placement,
    ...PLAIN_VIDEO,
    ...(look && { opacity: look.opacity, blend: look.blend, turn: look.tilt }),
    adjust: adjustOf(look),
    ...more,
  };
}

function screenLayers(scene: Scene, found: Shown): Layer[] {
  const { project, sources, time, output } = scene;
  const screen = screenOf(scene, found);
  const { clip, footage, area, view, stage, placement, scale, toOutput } = screen;
  if (!placement) return [];
  const layers: Layer[] = [
    ...blurredBars(scene, { clip, footage }, placement, area, stage),
    video(scene, clip, footage, placement, {}),
  ];
  const here = project.callouts.filter((c) => contains(c, time) && c.footageId === footage.id);
  for (const callout of here)
    if (callout.kind === 'cover') layers.push(...coverLayers(callout, toOutput, scale, stage));
  for (const callout of here) {
    const paths =
      callout.kind === 'stroke' || callout.kind === 'shape'
        ? strokePaths(callout, ticksToSeconds(time - callout.start) * 1000)
        : [];
    if (paths.length && (callout.kind === 'stroke' || callout.kind === 'shape'))
      layers.push({
        kind: 'stroke',
        paths: paths.map((path) => path.map(toOutput)),
        closed: callout.kind === 'shape' && callout.shape !== 'arrow',
        width: Math.max(1, callout.width * scale),
        color: callout.color,
        opacity:
          presenceAt(callout, time) *
          (callout.kind === 'stroke' && callout.tool === 'marker' ? MARKER_PEN_OPACITY : 1),
      });
  }
  const span = spanAt(project.pointer, time);
  const track = sources.pointers[footage.id];
  if (track) {
    const ms = ticksToSeconds(sourceTime(clip, time)) * 1000;
    const tip = toOutput(pointerAt(track, ms));
    const zoom =
      (wholeView(area, project.canvas).width / view.width) * (stage.width / output.width);
    if (span?.dim) layers.push(dimLayer(span.dim, tip, (scene.ratio * zoom) / 2, stage));
    if (span)
      layers.push({
        kind: 'halo',
        center: tip,
        diameter: span.halo.size * scene.ratio * zoom,
        color: span.halo.color,
        softness: span.halo.softness,
        opacity: span.halo.opacity,
      });
    if (track.inPicture === false)
      layers.push({
        kind: 'pointer',
        tip,
        height: POINTER_HEIGHT * output.height * zoom,
        shape: shapeAt(track, ms),
      });
  }
  for (const callout of here)
    if (callout.kind === 'text') layers.push(textLayer(callout, scene, toOutput));
  return layers;
}

/** Blur of what stands in for bars, as a share of the picture's height. */
const BARS_BLUR = 0.03;

/** The recording itself, filling the stage and blurred, behind one that leaves bars. */
function blurredBars(
  scene: Scene,
  { clip, footage }: Shown,
  { destination }: Placement,
  area: InFootage,
  stage: InOutput,
): Layer[] {
  if (lookOf(scene.project, footage.id)?.bars !== 'blur') return [];
  if (destination.width >= stage.width && destination.height >= stage.height) return [];
  const part = fitSize(stage, area);
  const source = {
    x: area.x + (area.width - part.width) / 2,
    y: area.y + (area.height - part.height) / 2,
    ...part,
  };
  return [
    video(scene, clip, footage, { source, destination: stage }, {}),
    {
      kind: 'cover',
      destination: stage,
      way: 'blur',
      radius: Math.max(1, BARS_BLUR * scene.output.height),
      color: scene.project.canvas.background,
    },
  ];
}

function dimLayer(
  { size, softness, dark, drained }: DimAround,
  center: { x: number; y: number },
  half: number,
  area: InOutput,
): Layer {
  const outer = size * half;
  return { kind: 'dim', area, center, inner: outer * (1 - softness), outer, dark, drained };
}

type ToOutput = (p: { x: number; y: number }) => { x: number; y: number };

function coverLayers(
  callout: Callout & { kind: 'cover' },
  toOutput: ToOutput,
  scale: number,
  stage: InOutput,
): Layer[] {
  const { rect } = callout;
  const from = toOutput(rect);
  const to = toOutput({ x: rect.x + rect.width, y: rect.y + rect.height });
  // Outwards to whole even pixels, so that no edge of what is private shows.
  const x = Math.floor(from.x / 2) * 2;
  const y = Math.floor(from.y / 2) * 2;
  const destination: InOutput = intersect(
    { x, y, width: Math.ceil(to.x / 2) * 2 - x, height: Math.ceil(to.y / 2) * 2 - y },
    stage,
  );
  if (destination.width < 2 || destination.height < 2) return [];
  return [
    {
      kind: 'cover',
      destination,
      way: callout.way,
      radius: Math.max(1, callout.strength * scale),
      color: callout.color,
    },
  ];
}

function textLayer(callout: Callout & { kind: 'text' }, scene: Scene, toOutput: ToOutput): Layer {
  const { ratio } = scene;
  return {
    kind: 'text',
    id: callout.id,
    text: callout.text,
    tip: toOutput(callout.anchor),
    offset: { dx: callout.offset.dx * ratio, dy: callout.offset.dy * ratio },
    fontSize: callout.size * ratio,
    fill: callout.fill,
    ink: callout.ink,
    arrow: callout.arrow,
    opacity: presenceAt(callout, scene.time),
  };
}

function presenterLayers(scene: Scene, found: Shown): Layer[] {
  const { project, ratio } = scene;
  const presenter = presenterOf(scene, found);
  if (!presenter) return [];
  const { clip, footage, place } = presenter;
  const { mask, ring, source, destination } = place;
  const key = project.keys.find((k) => k.footageId === footage.id && k.on) ?? null;
  const layers: Layer[] = [
    video(
      scene,
      clip,
      footage,
      { source, destination },
      {
        key,
        mirror: project.presenter.mirror,
        mask,
        backdrop: key && project.presenter.backdrop,
      },
    ),
  ];
  if (ring)
    layers.push({
      kind: 'shape',
      shape: mask?.shape === 'ellipse' || mask?.shape === 'rounded' ? mask.shape : 'rectangle',
      radius: mask?.shape === 'rounded' ? mask.radius : 0,
      destination,
      fill: null,
      stroke: { width: ring.width * ratio, color: ring.color },
    });
  return layers;
}

function presenterAlone(scene: Scene, look: 'raw' | 'matte'): Layer[] {
  const found = frontmost(scene, 'presenter');
  if (!found) return [];
  const { clip, footage } = found;
  const placement = placeScreen(wholeView(footage, scene.output), footage, scene.output);
  const key = scene.project.keys.find((k) => k.footageId === footage.id) ?? null;
  const matte = look === 'matte' && !!key;
  // As it was recorded: neither turned nor see-through, so that a spot of the picture is that spot
  // of the recording.
  return placement
    ? [video(scene, clip, footage, placement, { ...PLAIN_VIDEO, key: matte ? key : null, matte })]
    : [];
}
