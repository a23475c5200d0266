import type { MatteGrade } from './grade';

/** What is told of a key, by the worst of what it leaves. */
export type GradeMark = 'good' | 'fair' | 'poor';

/** One thing that is graded: its value in words, its mark, and what to do where it is not good. */
export interface GradeLine {
  readonly what: keyof MatteGrade;
  readonly mark: GradeMark;
  readonly advice: string | null;
}

/** From which values on each is fair, and poor. */
const BOUNDS: Readonly<Record<keyof MatteGrade, readonly [fair: number, poor: number]>> = {
  noise: [0.002, 0.02],
  holes: [0.002, 0.02],
  edge: [6, 12],
  spill: [4, 10],
};

const BY_WALL: Readonly<Record<keyof MatteGrade, string>> = {
  noise: 'Raise the tolerance, add a sample of what is left, or draw the garbage matte closer.',
  holes: 'Lower the tolerance or the softness; clothes of the wall’s colour can’t be told from it.',
  edge: 'Lower the softness and the feather; light the wall more evenly.',
  spill: 'Pick another colour for its light; stand further away from the wall.',
};
const BY_MATTE: Readonly<Record<keyof MatteGrade, string>> = {
  noise: 'Draw the garbage matte closer around the presenter.',
  holes: 'Record a second without the presenter, and key by that shot.',
  edge: 'Lower the feather; a still camera and more light make outlines exact.',
  spill: '',
};

/** A grade as lines with what to do about each. */
export function gradeLines(grade: MatteGrade, byWall: boolean): GradeLine[] {
  const things = byWall
    ? (['noise', 'holes', 'edge', 'spill'] as const)
    : (['noise', 'holes', 'edge'] as const);
  return things.map((what) => {
    const [fair, poor] = BOUNDS[what];
    const mark = grade[what] < fair ? 'good' : grade[what] < poor ? 'fair' : 'poor';
    return { what, mark, advice: mark === 'good' ? null : (byWall ? BY_WALL : BY_MATTE)[what] };
  });
}
