import type { Canvas, FootageLook } from '../project/model';
import type { FootageFacts } from '../project/sources';
import { timesShown, usualRateOf } from '../time/rates';
import { framesPerSecond, type FrameRate } from '../time/ticks';

/** What can be done about a mismatch, at one press; nothing of it happens by itself. */
export type Remedy =
  | { readonly label: string; readonly kind: 'rate'; readonly frameRate: FrameRate }
  | {
      readonly label: string;
      readonly kind: 'size';
      readonly width: number;
      readonly height: number;
    }
  | {
      readonly label: string;
      readonly kind: 'look';
      readonly look: Pick<FootageLook, 'fit' | 'bars'>;
    };

export interface Mismatch {
  readonly kind: 'rate' | 'variable' | 'shape' | 'small';
  /** What it is, in a few words. */
  readonly brief: string;
  /** What it means, in a sentence. */
  readonly text: string;
  readonly remedies: readonly Remedy[];
}

type Facts = Pick<FootageFacts, 'kind' | 'role' | 'width' | 'height' | 'frameRate' | 'hasVideo'> & {
  readonly variableRate: boolean;
};

/**
 * Shapes nearer to each other than this are the same: a bar of a few pixels is not worth a word.
 */
const SHAPE_TOLERANCE = 0.01;

const fps = (rate: FrameRate) => `${Number(framesPerSecond(rate).toFixed(2))} fps`;
const even = (n: number) => Math.round(n / 2) * 2;

/** A shape as people say it: `16:9`, or `1.85:1` where no small numbers fit. */
export function shapeName(width: number, height: number): string {
  for (const [w, h] of [
    [16, 9],
    [4, 3],
    [16, 10],
    [1, 1],
    [9, 16],
    [3, 4],
    [21, 9],
    [3, 2],
  ] as const)
    if (Math.abs(width / height / (w / h) - 1) < SHAPE_TOLERANCE) return `${w}:${h}`;
  return `${(width / height).toFixed(2)}:1`;
}

/** Where a recording and the project do not match, and what would help. */
export function findMismatches(facts: Facts, canvas: Canvas): Mismatch[] {
  if (!facts.hasVideo) return [];
  const found: Mismatch[] = [];
  const { frameRate, width, height } = facts;
  if (facts.variableRate)
    found.push({
      kind: 'variable',
      brief: 'its frame rate varies',
      text: 'Its frame rate varies, as that of screen recorders does. Every frame is shown at its own time, so it stays in step with the sound.',
      remedies: [],
    });
  else if (
    frameRate &&
    facts.kind === 'video' &&
    timesShown(frameRate, canvas.frameRate) === null
  ) {
    const usual = usualRateOf(frameRate);
    found.push({
      kind: 'rate',
      brief: `${fps(frameRate)} in a project of ${fps(canvas.frameRate)}`,
      text: `It has ${fps(frameRate)}, the project ${fps(canvas.frameRate)}. It plays in its own time; ${
        framesPerSecond(frameRate) > framesPerSecond(canvas.frameRate)
          ? 'some frames are left out'
          : 'some frames are shown twice'
      }, which can make movement uneven.`,
      // A rate that no film and no screen has is of use to nobody.
      remedies: usual
        ? [{ label: `Use ${fps(usual)} for the project`, kind: 'rate', frameRate: usual }]
        : [],
    });
  }
  if (facts.role === 'presenter') return [...found, ...ofPresenter(facts, canvas)];
  if (facts.role !== 'screen' && facts.role !== 'still') return found;
  if (Math.abs(width / height / (canvas.width / canvas.height) - 1) > SHAPE_TOLERANCE)
    found.push({
      kind: 'shape',
      brief: `${shapeName(width, height)} in a picture of ${shapeName(canvas.width, canvas.height)}`,
      text: `It is ${shapeName(width, height)}, the picture ${shapeName(canvas.width, canvas.height)}. Seen whole it leaves bars ${width / height < canvas.width / canvas.height ? 'at the sides' : 'above and below'}; filling the picture cuts off ${width / height < canvas.width / canvas.height ? 'top and bottom' : 'both sides'}.`,
      remedies: [
        { label: 'Fit, plain bars', kind: 'look', look: { fit: 'fit', bars: 'plain' } },
        { label: 'Fit, blurred bars', kind: 'look', look: { fit: 'fit', bars: 'blur' } },
        { label: 'Fill the frame', kind: 'look', look: { fit: 'fill', bars: 'plain' } },
      ],
    });
  const scale = Math.min(canvas.width / width, canvas.height / height);
  if (scale > 1.005)
    found.push({
      kind: 'small',
      brief: `enlarged ${scale.toFixed(2)}×, soft`,
      text: `It is ${width}×${height} px, smaller than the picture of ${canvas.width}×${canvas.height} px: it is enlarged ${scale.toFixed(2)}× and looks soft.`,
      remedies:
        width >= 16 && height >= 16
          ? [
              {
                label: `Make the project ${even(width)}×${even(height)} px`,
                kind: 'size',
                width: even(width),
                height: even(height),
              },
            ]
          : [],
    });
  return found;
}

/** Alone in the picture a camera's recording may be enlarged by so much before it is worth a word. */
const SOFT_ALONE = 1.6;
/** Less than this share of a camera's picture is seen when it fills the frame. */
const CUT_ALONE = 0.7;

/**
 * What is to be foreseen of a presenter's recording. It is cut to its place in every layout, so that
 * it leaves no bars; alone in the picture it may be soft, or lose much of its edges.
 */
function ofPresenter({ width, height }: Facts, canvas: Canvas): Mismatch[] {
  const found: Mismatch[] = [];
  const scale = Math.max(canvas.width / width, canvas.height / height);
  const seen = (canvas.width * canvas.height) / (width * scale * height * scale);
  if (seen < CUT_ALONE)
    found.push({
      kind: 'shape',
      brief: `${shapeName(width, height)}, cut when alone`,
      text: `It is ${shapeName(width, height)}, the picture ${shapeName(canvas.width, canvas.height)}: with the picture to themselves ${Math.round(100 - seen * 100)} % of the presenter’s recording is cut off. A place of their own in a layout can show all of it.`,
      remedies: [],
    });
  if (scale > SOFT_ALONE)
    found.push({
      kind: 'small',
      brief: `soft above ${Math.round(100 / scale)} % of the picture`,
      text: `It is ${width}×${height} px: the presenter is sharp up to ${Math.round(100 / scale)} % of the picture’s size, and alone in it enlarged ${scale.toFixed(2)}×, which looks soft.`,
      remedies: [],
    });
  return found;
}
