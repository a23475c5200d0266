import { assertNever } from '../assert-never';
import type { Ticks } from '../time/ticks';
import { USUAL_LAYOUT } from './built-in';
import { groundBetween, type Ground } from './ground';
import { WHOLE_BOX, type Box, type Layout, type LayoutSpan, type PresenterBox } from './model';
import type { PresenterPlacement } from './placement';
import { SQUIRCLE_POWER } from './mask';
import { inDirectionsOf, onTheWay, PEBBLE, shapeBetween, type UsualOutline } from './own-shape';
import { ROUNDING, type There } from './rectangles';

/** The layout of an instant: at rest in one, or on the way to it from the one before. */
export interface LayoutMoment {
  readonly from: Layout;
  readonly to: Layout;
  /** How far it has come in time, 0 to 1; 1 at rest. */
  readonly u: number;
  /** Whether one is blended over the other, and nothing moves. */
  readonly dissolves: boolean;
}

/**
 * The layout at an instant. One that glides in comes from the layout before it, and what follows it
 * where no other begins is come back to in the same time.
 *
 * @param spans the layouts of a project, in order
 * @param time timeline ticks
 */
export function layoutMomentAt(spans: readonly LayoutSpan[], time: Ticks): LayoutMoment {
  const index = spans.findLastIndex((span) => span.start <= time);
  const last = spans[index];
  if (!last) return { from: USUAL_LAYOUT, to: USUAL_LAYOUT, u: 1, dissolves: false };
  const within = time < last.end;
  const began = within ? last.start : last.end;
  const ends = within ? last.end : (spans[index + 1]?.start ?? Infinity);
  // The first picture comes from nowhere.
  const length = began > 0 ? Math.min(last.glide ?? 0, ends - began) : 0;
  const to = within ? last.layout : USUAL_LAYOUT;
  const dissolves = last.dissolves ?? false;
  if (time - began >= length) return { from: to, to, u: 1, dissolves };
  const before = spans[index - 1];
  const touches = before?.end === last.start;
  const from = !within ? last.layout : touches ? before!.layout : USUAL_LAYOUT;
  return { from, to, u: (time - began) / length, dissolves };
}

const mix = (a: number, b: number, u: number): number => a + (b - a) * u;

const mixBoxes = (a: Box, b: Box, u: number): Box => ({
  ...{ x: mix(a.x, b.x, u), y: mix(a.y, b.y, u) },
  ...{ width: mix(a.width, b.width, u), height: mix(a.height, b.height, u) },
});

/** A box that is nothing but the middle of another. */
const middleOf = ({ x, y, width, height }: Box): Box => ({
  ...{ x: x + width / 2, y: y + height / 2, width: 0, height: 0 },
});

/** Corners of a presenter's box, as a share of its shorter side: a circle is all corner. */
function roundingOf({ shape, rounding = ROUNDING }: PresenterBox): number {
  switch (shape) {
    case 'circle':
    case 'ellipse':
      return 0.5;
    case 'squircle':
      return SQUIRCLE_ROUNDING;
    case 'rounded':
    case 'portrait':
      return rounding;
    // One of its own has none, and is not asked for any.
    case 'own':
    case 'rectangle':
      return 0;
    default:
      return assertNever(shape);
  }
}

/** The corners of a rounded square that comes nearest to a squircle. */
const SQUIRCLE_ROUNDING = 0.42;

/** What one of the layouts shows of the presenter, with nobody else there if that is so. */
const boxIn = (layout: Layout, there: There, box: PresenterBox | null): PresenterBox | null =>
  box && layout.alone === 'whole' && !there.screen
    ? { box: WHOLE_BOX, shape: 'rectangle', feather: 0, center: { x: 0.5, y: 0.5 }, ring: null }
    : box;

/** The usual outline of a presenter's box, as far as it is told without the box's size. */
function usualOutline(box: PresenterBox): UsualOutline {
  if (box.shape === 'circle' || box.shape === 'ellipse') return { power: 2 };
  return box.shape === 'squircle' ? { power: SQUIRCLE_POWER } : { rounding: roundingOf(box) };
}

/** The outline between two: the same stays, corners grow or go, an own shape becomes another. */
function shapeOnTheWay(
  a: PresenterBox,
  b: PresenterBox,
  u: number,
): Pick<PresenterBox, 'shape' | 'rounding' | 'path'> {
  const [from, to] = [a, b].map(({ shape, path = PEBBLE }) => (shape === 'own' ? path : null));
  if (from && to) return { shape: 'own', path: shapeBetween(from, to, u) };
  if (from || to) {
    const points = onTheWay((from ?? to)!);
    const usual = inDirectionsOf(points, usualOutline(from ? b : a));
    return { shape: 'own', path: shapeBetween(points, usual, from ? u : 1 - u) };
  }
  if (a.shape === b.shape && a.shape !== 'rounded') return { shape: a.shape };
  return { shape: 'rounded', rounding: mix(roundingOf(a), roundingOf(b), u) };
}

function mixPresenters(
  a: PresenterBox,
  b: PresenterBox,
  u: number,
  placed: PresenterPlacement,
): PresenterBox {
  const [centerA, centerB] = [a.center ?? placed.center, b.center ?? placed.center];
  const [ringA, ringB] = [a.ring?.width ?? 0, b.ring?.width ?? 0];
  const ring = {
    width: mix(ringA, ringB, u),
    color: ((u < 0.5 ? a : b).ring ?? a.ring ?? b.ring)?.color,
    second: ((u < 0.5 ? a : b).ring ?? a.ring ?? b.ring)?.second ?? null,
    gap: mix(a.ring?.gap ?? 0, b.ring?.gap ?? 0, u),
  };
  const shadow = mix(a.shadow ?? 0, b.shadow ?? 0, u);
  const reflection = mix(a.reflection ?? 0, b.reflection ?? 0, u);
  return {
    box: mixBoxes(a.box, b.box, u),
    ...shapeOnTheWay(a, b, u),
    ...((u < 0.5 ? a : b).clear ? { clear: true } : {}),
    feather: mix(a.feather, b.feather, u),
    center: { x: mix(centerA.x, centerB.x, u), y: mix(centerA.y, centerB.y, u) },
    crop: mix(a.crop ?? 1, b.crop ?? 1, u),
    ring: ring.color && ring.width > 0 ? { ...ring, color: ring.color } : null,
    ...(shadow > 0 ? { shadow } : {}),
    ...(reflection > 0 ? { reflection } : {}),
  };
}

/** What is behind all in both layouts of a moment. */
export const groundsOf = (
  { from, to }: Pick<LayoutMoment, 'from' | 'to'>,
  project: Ground,
): readonly [Ground, Ground] => [from.background ?? project, to.background ?? project];

/** The screen on its way: corners grow or go, and an edge gets wider or thinner. */
function screenBetween(
  from: Layout,
  to: Layout,
  u: number,
  boxIn: (layout: Layout) => Box,
): Layout['screen'] {
  const [a, b] = [from.screen, to.screen];
  const shown = (u < 0.5 ? a : b)?.ring ?? a?.ring ?? b?.ring;
  const width = mix(a?.ring?.width ?? 0, b?.ring?.width ?? 0, u);
  const gap = mix(a?.ring?.gap ?? 0, b?.ring?.gap ?? 0, u);
  const rounding = mix(a?.rounding ?? 0, b?.rounding ?? 0, u);
  const shadow = mix(a?.shadow ?? 0, b?.shadow ?? 0, u);
  return {
    box: mixBoxes(boxIn(from), boxIn(to), u),
    ...(rounding > 0 ? { rounding } : {}),
    ...(shown && width > 0 ? { ring: { ...shown, width, gap } } : {}),
    ...(shadow > 0 ? { shadow } : {}),
  };
}

/**
 * A layout on the way from one to another: boxes go there on a straight line and change their size,
 * a presenter who comes grows from the middle of their box, one who goes shrinks into it, and a
 * screen that was hidden lies whole behind the presenter.
 *
 * @param u how far it has come, 0 to 1
 * @param there who has something to show
 * @param boxes the presenter's boxes in both layouts; null where one shows none
 * @param project the project's background and its placing of the presenter
 */
export function layoutBetween(
  { from, to }: LayoutMoment,
  u: number,
  there: There,
  boxes: readonly [PresenterBox | null, PresenterBox | null],
  project: { readonly background: Ground; readonly placed: PresenterPlacement },
): Layout {
  const screenIn = ({ screen, alone }: Layout): Box =>
    !screen || (alone === 'whole' && !there.presenter) ? WHOLE_BOX : screen.box;
  const [a, b] = [boxIn(from, there, boxes[0]), boxIn(to, there, boxes[1])];
  const comes = b && { ...b, box: middleOf(b.box) };
  const goes = a && { ...a, box: middleOf(a.box) };
  const [first, second] = [a ?? comes, b ?? goes];
  const [before, after] = groundsOf({ from, to }, project.background);
  return {
    name: to.name,
    background: groundBetween(before, after, u) ?? (u < 0.5 ? before : after),
    screen: from.screen || to.screen ? screenBetween(from, to, u, screenIn) : null,
    presenter: first && second && mixPresenters(first, second, u, project.placed),
    alone: 'stay',
  };
}
