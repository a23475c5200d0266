import { Type, type Static } from '@sinclair/typebox';
import { countFront } from '../bisect';
import { ease } from '../framing/path';
import { median } from '../median';
import type { FaceBox } from './settle';

const Shift = Type.Number({ minimum: -1, maximum: 1 });

/**
 * Where a face goes in a recording, as few calm moves: from each moment on it is so far to the
 * right and below of where it usually is.
 */
export const FacePath = Type.Array(
  Type.Tuple([Type.Integer({ minimum: 0, maximum: Number.MAX_SAFE_INTEGER }), Shift, Shift]),
  {
    maxItems: 20_000,
    description:
      '`[ms, across, down]`: from so many milliseconds of the recording on what is shown goes over ' +
      'to so many shares of its width and height away; from 0 on it is there at once.',
  },
);
export type FacePath = Static<typeof FacePath>;

/** A face that was looked for: when, in milliseconds of the recording; null where there is none. */
export interface FaceLook {
  readonly ms: number;
  readonly face: FaceBox | null;
}

/** How long what is shown takes to go over to where the face is now, in milliseconds. */
const FOLLOW_MS = 1600;
/** A face that is further away than so many of its heights is followed. */
const LOOSE = 0.3;
/** A move shorter than so many of its heights is not worth making. */
const LEAST = 0.12;
/** For so long the face must have gone, in milliseconds: nods and glances are not followed. */
const GONE_MS = 700;
/** What is found around a moment is brought together over so long to either side, in milliseconds. */
const AROUND_MS = 800;
/** Heights of faces that differ by more than this factor are of somebody else. */
const OTHER = 1.8;

/**
 * Follows a face slowly: what is shown stays where it is while the face is near, and goes over to
 * it in one move once it has gone further and stayed there. A face that is not seen is waited for.
 *
 * @param looks in order
 * @param usual where the face is for most of the time
 */
export function followFace(looks: readonly FaceLook[], usual: FaceBox): FacePath {
  const seen = looks.flatMap(({ ms, face }) =>
    face && face.height < usual.height * OTHER && face.height > usual.height / OTHER
      ? [{ ms, x: middle(face).x - middle(usual).x, y: middle(face).y - middle(usual).y }]
      : [],
  );
  // Shares of width and height are not as long as each other: a face is as wide as it is high.
  const unit = { x: usual.width, y: usual.height };
  const away = (a: Place, b: Place) =>
    Math.max(Math.abs(a.x - b.x) / unit.x, Math.abs(a.y - b.y) / unit.y);
  const path: [number, number, number][] = [];
  const begins = between(seen, 0, 2 * AROUND_MS);
  let at: Place = { x: 0, y: 0 };
  if (begins.length && away(middleOf(begins), at) >= LOOSE) {
    at = middleOf(begins);
    path.push([0, thousandths(at.x), thousandths(at.y)]);
  }
  let free = -Infinity;
  let goneSince: number | null = null;
  for (const { ms } of seen) {
    const now = middleOf(between(seen, ms - AROUND_MS, ms + AROUND_MS));
    if (away(now, at) < LOOSE) {
      goneSince = null;
      continue;
    }
    goneSince ??= ms;
    if (ms - goneSince < GONE_MS || ms < free) continue;
    // Where it is when the move is done is where it is to go.
    const to = middleOf(between(seen, ms, ms + FOLLOW_MS));
    // It began to go before that was sure.
    const start = Math.max(1, Math.round(Math.max(goneSince, free)));
    goneSince = null;
    if (away(to, at) < LEAST) continue;
    path.push([start, thousandths(to.x), thousandths(to.y)]);
    free = start + FOLLOW_MS;
    at = to;
  }
  return path;
}

/** The middle of some places, whatever a few of them are. */
const middleOf = (places: readonly Place[]): Place => ({
  x: median(places.map(({ x }) => x)),
  y: median(places.map(({ y }) => y)),
});

/** What was seen in a stretch, both ends included. */
const between = <T extends { readonly ms: number }>(seen: readonly T[], from: number, to: number) =>
  seen.slice(
    countFront(seen, ({ ms }) => ms < from),
    countFront(seen, ({ ms }) => ms <= to),
  );

interface Place {
  readonly x: number;
  readonly y: number;
}

const middle = ({ x, y, width, height }: FaceBox): Place => ({
  ...{ x: x + width / 2, y: y + height / 2 },
});

/** A share as it is kept; zero has no sign, which a stored document would lose. */
const thousandths = (n: number) => Math.min(1, Math.max(-1, Math.round(n * 1000) / 1000)) + 0;

/**
 * How far what is shown has gone along at a moment, in shares of the recording's width and height.
 *
 * @param ms milliseconds of the recording
 */
export function faceShiftAt(
  path: FacePath,
  ms: number,
): { readonly x: number; readonly y: number } {
  const index = countFront(path, ([from]) => from <= ms) - 1;
  const move = path[index];
  if (!move) return { x: 0, y: 0 };
  const [start, x, y] = move;
  // Where it is from the beginning on, it does not come from elsewhere.
  if (start === 0) return { x, y };
  const [, fromX, fromY] = path[index - 1] ?? [0, 0, 0];
  const u = ease((ms - start) / FOLLOW_MS);
  return { x: fromX + (x - fromX) * u, y: fromY + (y - fromY) * u };
}
