import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { intersect, isWithin, type InFootage, type Rect } from '../scale/rect';
import { frontmost, presenterOf, sceneAt, screenIn } from '../scene/scene';
import type { Ticks } from '../time/ticks';
import { keepInside } from './path';

/** The side of the square that is as large as a circle, as a share of its diameter. */
const ROUND = Math.sqrt(Math.PI) / 2;
/** Room between what is looked at and the presenter, as a share of the view. */
const GAP = 0.03;

/**
 * The part of the screen that the presenter covers at an instant, as shares of what is seen of the
 * screen: 0 to 1 across and down, whatever the view. Null where nothing is covered. Of a round
 * presenter it is the square of the same size.
 */
export function insetAt(project: Project, sources: Sources, time: Ticks): Rect | null {
  const scene = sceneAt(project, sources, time);
  const screen = screenIn(scene);
  const there = frontmost(scene, 'presenter');
  const place = screen && there && presenterOf(scene, there)?.place;
  if (!place) return null;
  const { stage } = screen;
  const { destination, mask } = place;
  const trim = mask?.shape === 'ellipse' ? (1 - ROUND) / 2 : 0;
  const covered = intersect(stage, {
    x: destination.x + destination.width * trim,
    y: destination.y + destination.height * trim,
    width: destination.width * (1 - 2 * trim),
    height: destination.height * (1 - 2 * trim),
  });
  if (!covered.width || !covered.height) return null;
  return {
    x: (covered.x - stage.x) / stage.width,
    y: (covered.y - stage.y) / stage.height,
    width: covered.width / stage.width,
    height: covered.height / stage.height,
  };
}

/** The part of the recording that the presenter covers in a view, in footage pixels. */
export const coveredIn = (view: InFootage, inset: Rect): InFootage => ({
  x: view.x + inset.x * view.width,
  y: view.y + inset.y * view.height,
  width: inset.width * view.width,
  height: inset.height * view.height,
});

/** The share of a rectangle that the presenter covers in a view, 0 to 1. */
export function shareCovered(rect: InFootage, view: InFootage, inset: Rect): number {
  const shared = intersect(rect, coveredIn(view, inset));
  return (shared.width * shared.height) / Math.max(1, rect.width * rect.height);
}

/**
 * Views of the same size in which the presenter stands beside a rectangle, not over it: moved as
 * little as that takes to each side of which there is room for it.
 */
export function viewsBeside(
  view: InFootage,
  rect: InFootage,
  inset: Rect,
  whole: InFootage,
): InFootage[] {
  const covered = coveredIn(view, inset);
  const across = GAP * view.width;
  const down = GAP * view.height;
  const moves = [
    { x: rect.x + rect.width + across - covered.x, y: 0 },
    { x: rect.x - across - (covered.x + covered.width), y: 0 },
    { x: 0, y: rect.y + rect.height + down - covered.y },
    { x: 0, y: rect.y - down - (covered.y + covered.height) },
  ];
  return moves
    .map(({ x, y }) => keepInside({ ...view, x: view.x + x, y: view.y + y }, whole))
    .filter((moved) => shareCovered(rect, moved, inset) === 0 && isWithin(rect, moved));
}
