import { MODEL_SIDE } from '../matte/model-view';

/** The model looks at grids of so many cells on a side, at each cell in so many ways. */
const GRIDS = [
  { cells: 16, ways: 2 },
  { cells: 8, ways: 6 },
] as const;
/** Numbers that the model answers for each place: a box, then six points of the face. */
const NUMBERS = 16;
/** A face is told from here on. */
const SURE = 0.6;
/** Boxes that overlap by more than this are of the same face. */
const SAME = 0.3;

/** A face in a square picture: its box in shares of the side, and how sure it is, 0 to 1. */
export interface Face {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly sure: number;
}

/** How many places the model looks at in each of its grids. */
export const FACE_PLACES = GRIDS.map(({ cells, ways }) => cells * cells * ways);

/** Middles of the places that the model looks at, in shares of the side, in its order. */
function places(): { readonly x: number; readonly y: number }[] {
  return GRIDS.flatMap(({ cells, ways }) =>
    Array.from({ length: cells * cells * ways }, (_, i) => {
      const cell = Math.floor(i / ways);
      return {
        x: ((cell % cells) + 0.5) / cells,
        y: (Math.floor(cell / cells) + 0.5) / cells,
      };
    }),
  );
}

const PLACES = places();

/**
 * Faces from what the model answers (V. Bazarevsky and others, "BlazeFace", 2019): for each place a
 * score, whose logistic function is how sure it is, and a box relative to the place, in pixels.
 * Those that overlap are brought together, the surest first.
 *
 * @param scores one for each place
 * @param boxes sixteen numbers for each place: middle and size of the box, then points
 */
export function decodeFaces(scores: ArrayLike<number>, boxes: ArrayLike<number>): Face[] {
  const found: Face[] = [];
  PLACES.forEach((place, i) => {
    const sure = 1 / (1 + Math.exp(-scores[i]!));
    if (sure < SURE) return;
    const at = i * NUMBERS;
    const [width, height] = [boxes[at + 2]! / MODEL_SIDE, boxes[at + 3]! / MODEL_SIDE];
    found.push({
      x: place.x + boxes[at]! / MODEL_SIDE - width / 2,
      y: place.y + boxes[at + 1]! / MODEL_SIDE - height / 2,
      ...{ width, height, sure },
    });
  });
  const kept: Face[] = [];
  for (const face of found.sort((a, b) => b.sure - a.sure))
    if (!kept.some((other) => overlap(face, other) > SAME)) kept.push(face);
  return kept;
}

/** Intersection over union of two boxes. */
function overlap(a: Face, b: Face): number {
  const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  if (across <= 0 || down <= 0) return 0;
  const both = across * down;
  return both / (a.width * a.height + b.width * b.height - both);
}
