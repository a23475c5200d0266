import { presenceAt } from '../callout/presence';
import { viewAt } from '../framing/view';
import { placePresenter, placeScreen, type Placement } from '../layout/rectangles';
import type { Callout, Clip, Project } from '../project/model';
import { sourceTime, spanAt, visibleClip } from '../project/query';
import type { FootageFacts, Sources } from '../project/sources';
import { intersect, type InFootage, type InOutput, type Size } from '../scale/rect';
import { wholeView } from '../scale/sharpness';
import { pointerAt } from '../telemetry/sample';
import { contains } from '../time/ranges';
import { ticksToSeconds, type Ticks } from '../time/ticks';
import type { FramePlan, Layer, VideoLayer } from './plan';

/** Other looks at the same instant, for the interface. */
export interface PlanView {
  /** The screen without its framing. */
  readonly whole?: boolean;
  /** The presenter's recording alone: as it is, or its matte. */
  readonly presenter?: 'raw' | 'matte';
}

interface Scene {
  readonly project: Project;
  readonly sources: Sources;
  readonly time: Ticks;
  readonly output: Size;
  /** Output pixels for one frame pixel. */
  readonly ratio: number;
}

/**
 * Describes the picture at an instant for an output size, without a pixel being
 * touched. The preview and the export both draw what this says and nothing else.
 *
 * @param time timeline ticks
 * @param output output pixels; of the project's shape, or bars are left in the background colour
 */
export function planFrame(project: Project, sources: Sources, time: Ticks, output: Size, view: PlanView = {}): FramePlan {
  const scene: Scene = { project, sources, time, output, ratio: output.height / project.canvas.height };
  const layers = view.presenter ? presenterAlone(scene, view.presenter) : [...screenLayers(scene, view), ...presenterLayers(scene)];
  return { size: output, background: project.canvas.background, layers };
}

const shown = ({ project, sources, time }: Scene, kind: 'screen' | 'presenter') => {
  const clip = visibleClip(project, kind, time);
  const footage = clip && sources.footage[clip.footageId];
  return clip && footage?.hasVideo ? { clip, footage } : null;
};

const layoutAt = ({ project, time }: Scene) => spanAt(project.layouts, time)?.kind ?? 'corner';

function video(scene: Scene, clip: Clip, footage: FootageFacts, placement: Placement, more: Partial<VideoLayer>): VideoLayer {
  return {
    kind: 'video',
    clipId: clip.id,
    footageId: footage.id,
    // A still has one picture, whatever the time.
    time: footage.kind === 'image' ? 0 : sourceTime(clip, scene.time),
    footage: { width: footage.width, height: footage.height },
    ...placement,
    mirror: false,
    mask: 'none',
    key: null,
    matte: false,
    ...more,
  };
}

function screenLayers(scene: Scene, { whole }: PlanView): Layer[] {
  const { project, sources, time, output } = scene;
  const found = shown(scene, 'screen');
  if (!found || (layoutAt(scene) === 'presenter' && shown(scene, 'presenter'))) return [];
  const { clip, footage } = found;
  const view: InFootage = whole
    ? wholeView(footage, project.canvas)
    : viewAt(project.framings, footage.id, footage, project.canvas, time).rect;
  const placement = placeScreen(view, footage, output);
  if (!placement) return [];
  const scale = output.width / view.width;
  const toOutput = (p: { x: number; y: number }) => ({ x: (p.x - view.x) * scale, y: (p.y - view.y) * scale });
  const layers: Layer[] = [video(scene, clip, footage, placement, {})];
  const here = project.callouts.filter((c) => contains(c, time) && c.footageId === footage.id);
  for (const callout of here) if (callout.kind === 'cover') layers.push(...coverLayers(callout, view, scale, output));
  const pointer = spanAt(project.pointer, time);
  const track = sources.pointers[footage.id];
  if (pointer && track) {
    const center = toOutput(pointerAt(track, ticksToSeconds(sourceTime(clip, time)) * 1000));
    const zoom = wholeView(footage, project.canvas).width / view.width;
    layers.push({
      kind: 'halo',
      center,
      diameter: pointer.halo.size * scene.ratio * zoom,
      color: pointer.halo.color,
      softness: pointer.halo.softness,
      opacity: pointer.halo.opacity,
    });
  }
  for (const callout of here) if (callout.kind === 'text') layers.push(textLayer(callout, scene, toOutput));
  return layers;
}

function coverLayers(callout: Callout & { kind: 'cover' }, view: InFootage, scale: number, output: Size): Layer[] {
  const { rect } = callout;
  // Outwards to whole even pixels, so that no edge of what is private shows.
  const x = Math.floor(((rect.x - view.x) * scale) / 2) * 2;
  const y = Math.floor(((rect.y - view.y) * scale) / 2) * 2;
  const right = Math.ceil(((rect.x + rect.width - view.x) * scale) / 2) * 2;
  const bottom = Math.ceil(((rect.y + rect.height - view.y) * scale) / 2) * 2;
  const destination: InOutput = intersect({ x, y, width: right - x, height: bottom - y }, { x: 0, y: 0, ...output });
  if (destination.width < 2 || destination.height < 2) return [];
  return [{ kind: 'cover', destination, radius: Math.max(1, callout.strength * scale) }];
}

function textLayer(
  callout: Callout & { kind: 'text' },
  scene: Scene,
  toOutput: (p: { x: number; y: number }) => { x: number; y: number },
): Layer {
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

function presenterLayers(scene: Scene): Layer[] {
  const found = shown(scene, 'presenter');
  if (!found) return [];
  const { project, output, ratio } = scene;
  const { clip, footage } = found;
  const layout = layoutAt(scene);
  const placement = placePresenter(layout, project.presenter, footage, output);
  if (!placement) return [];
  const { presenter } = project;
  const key = project.keys.find((k) => k.footageId === footage.id && k.on) ?? null;
  const round = layout === 'corner' && presenter.shape === 'circle';
  const shape = round ? 'ellipse' : 'rectangle';
  const { destination } = placement;
  const layers: Layer[] = [];
  if (key && presenter.backdrop) layers.push({ kind: 'shape', shape, destination, fill: presenter.backdrop, stroke: null });
  layers.push(video(scene, clip, footage, placement, { key, mirror: presenter.mirror, mask: round ? 'ellipse' : 'none' }));
  if (layout === 'corner' && presenter.ring.width > 0)
    layers.push({
      kind: 'shape',
      shape,
      destination,
      fill: null,
      stroke: { width: presenter.ring.width * ratio, color: presenter.ring.color },
    });
  return layers;
}

function presenterAlone(scene: Scene, look: 'raw' | 'matte'): Layer[] {
  const found = shown(scene, 'presenter');
  if (!found) return [];
  const { clip, footage } = found;
  const placement = placeScreen(wholeView(footage, scene.output), footage, scene.output);
  const key = scene.project.keys.find((k) => k.footageId === footage.id) ?? null;
  const matte = look === 'matte' && !!key;
  return placement ? [video(scene, clip, footage, placement, { key: matte ? key : null, matte })] : [];
}
