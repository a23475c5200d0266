import { plainGround } from '../layout/ground';
import type { Layout } from '../layout/model';
import { hidesScreen, placeScreen, screenEdge, type Placement } from '../layout/rectangles';
import type { Clip, Lane, Project } from '../project/model';
import { isLaneOn, isPictureLane, lookOf } from '../project/query';
import type { Sources } from '../project/sources';
import {
  frontmost,
  sceneAt,
  screenOf,
  uprightOf,
  withPicture,
  type Scene,
  type ScreenView,
  type Shown,
} from '../scene/scene';
import { fitSize, middleOf, type InFootage, type InOutput, type Size } from '../scale/rect';
import { wholeView } from '../scale/sharpness';
import { crossingAt } from '../transition/crossing';
import type { Ticks } from '../time/ticks';
import { callouts, frameCallouts } from './callout-layers';
import { beneathPointer } from './pointer-beneath';
import { pointerLayers } from './pointer-layers';
import { groundLayers } from './ground-layers';
import { presenterLayers } from './presenter-layers';
import { reflectedCovers } from './reflected-covers';
import { hiddenBy, ringOf, shadowOf } from './edge';
import { matteOf } from '../key/matte-of';
import { filled, isSolid, PLAIN_VIDEO, type FramePlan, type Layer, type VideoLayer } from './plan';
import { videoLayer } from './video-layer';
import { transitionLayers } from './transition-layers';

/** Other looks at the same instant, for the interface. */
export interface PlanView {
  /** The screen without its framing. */
  readonly whole?: boolean;
  /** Without the looks of the pointer. */
  readonly plain?: boolean;
  /** Text as the plain filter magnifies it. */
  readonly soft?: boolean;
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
  const shown = {
    ...project,
    ...(view.plain && { pointer: [] }),
    ...(view.soft && { canvas: { ...project.canvas, crisp: false } }),
  };
  const scene = sceneAt(shown, sources, time, output, { whole: view.whole ?? false });
  const background = plainGround(scene.ground.under);
  if (view.presenter)
    return { size: output, background, layers: presenterAlone(scene, view.presenter) };
  const picture = pictureLayers(scene);
  const inFront = frameCallouts(scene);
  const layers = [...picture, ...reflectedCovers(picture, inFront), ...inFront];
  // A dissolve brings both of its own.
  const hidden = scene.dissolve || picture.some((layer) => covers(layer, output));
  return { size: output, background, layers: hidden ? layers : [...groundOf(scene), ...layers] };
}

/** What is behind all in a scene, beyond the colour that its picture is filled with. */
const groundOf = ({ ground, sources, output }: Scene): Layer[] => [
  ...groundLayers(ground.under, sources, output),
  ...(ground.over ? groundLayers(ground.over, sources, output, ground.amount) : []),
];

/** What the lanes show; in the middle of a dissolve in both layouts, brought together. */
function pictureLayers(scene: Scene): Layer[] {
  const { dissolve, output, project } = scene;
  if (!dissolve) return laneLayers(scene);
  const of = (layout: Layout): Layer[] => {
    const ground = layout.background ?? project.canvas.background;
    return [
      filled(output, plainGround(ground)),
      ...groundLayers(ground, scene.sources, output),
      ...laneLayers({ ...scene, layout, dissolve: null }),
    ];
  };
  const { from, to, u } = dissolve;
  return [{ kind: 'mix', from: of(from), to: of(to), amount: u, motion: null }];
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
  if (layer.kind !== 'video' && layer.kind !== 'turned') return false;
  if (!isSolid(layer)) return false;
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

function screenLayers(scene: Scene, found: Shown): Layer[] {
  const screen = screenOf(scene, found);
  const { area, stage, placement, turn } = screen;
  if (!placement) return [];
  const { destination } = placement;
  const { mask, ring, shadow } = screenEdge(scene.layout, stage, destination, scene.output);
  const layer = videoLayer(scene, found, placement, { mask });
  return [
    ...shadowOf(destination, mask, shadow, scene.output, hiddenBy(layer)),
    ...(turn
      ? turnedScreen(scene, screen, layer)
      : [
          // Blurred bars have the stage's own shape.
          ...(mask ? [] : blurredBars(scene, found, placement, area, stage)),
          layer,
          ...onScreen(scene, screen, layer),
        ]),
    ...ringOf(destination, mask, ring, scene.ratio),
  ];
}

/** All that goes with a recording wherever that is shown, from back to front. */
function onScreen(scene: Scene, screen: ScreenView, layer: VideoLayer): Layer[] {
  const here = callouts(scene, screen);
  return [
    ...beneathPointer(scene, screen, layer),
    ...here('cover'),
    ...here('below'),
    ...pointerLayers(scene, screen),
    ...here('above'),
  ];
}

/** A recording that is seen turned, and all that goes with it. */
function turnedScreen(
  scene: Scene,
  screen: ScreenView,
  { destination, mask, opacity, blend }: VideoLayer,
): Layer[] {
  const upright = uprightOf(scene, screen);
  const { placement } = upright.screen;
  if (!placement) return [];
  const whole = { mask: null, opacity: 1, blend: 'normal' } as const;
  const layer = videoLayer(upright.scene, screen, placement, whole);
  const layers = [layer, ...onScreen(upright.scene, upright.screen, layer)];
  const { turn } = screen;
  const size = upright.scene.output;
  const about = middleOf(screen.stage);
  const background = plainGround(scene.ground.under);
  const seen = { turn, about, destination, mask, opacity, blend };
  return [{ kind: 'turned', layers, size, background, ...seen }];
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
    videoLayer(scene, { clip, footage }, { source, destination: stage }, { crisp: false }),
    {
      kind: 'region',
      area: stage,
      effect: { kind: 'blur', radius: Math.max(1, BARS_BLUR * scene.output.height) },
    },
  ];
}

function presenterAlone(scene: Scene, look: 'raw' | 'matte'): Layer[] {
  const found = frontmost(scene, 'presenter');
  if (!found) return [];
  const { footage } = found;
  const placement = placeScreen(wholeView(footage, scene.output), footage, scene.output);
  const key = scene.project.keys.find((k) => k.footageId === footage.id) ?? null;
  const { sources } = scene;
  const made = key && matteOf(sources, key);
  const matte = look === 'matte' && !!key && (key.method === 'wall' || !!made);
  // As it was recorded: neither turned nor see-through, so that a spot of the picture is that spot
  // of the recording.
  return placement
    ? [
        videoLayer(scene, found, placement, {
          ...PLAIN_VIDEO,
          ...(matte && { key, matteId: made?.id ?? null, matte }),
        }),
      ]
    : [];
}
