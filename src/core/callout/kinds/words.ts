import { Type } from '@sinclair/typebox';
import type { WordsMark } from '../../frame/mark';
import type { Layer } from '../../frame/plan';
import { Point, strict } from '../../schema/parts';
import { colorSetting, numberSetting } from '../../schema/setting';
import {
  drawn,
  shifted,
  WHOLE,
  type CalloutScene,
  type Handle,
  type Move,
  type Spot,
} from '../kind';

/*
 * What kinds have in common that are words in a box and point at a spot.
 */

/** A text colour and a fill colour that go together. */
const COLORS = { fill: '#8e3f66', ink: '#ffffff' } as const;

/** The properties that both have. */
export const wordsProperties = {
  text: Type.String({ maxLength: 2000 }),
  tip: { ...Point, description: 'What it points at.' },
  offset: strict(
    { dx: Type.Number(), dy: Type.Number() },
    {
      description:
        'From the tip to the middle of the box, in frame pixels: the box keeps its size in a zoom.',
    },
  ),
  size: numberSetting({
    label: 'Text size',
    description: 'Height of the letters in frame pixels.',
    unit: 'px',
    min: 8,
    max: 400,
    step: 1,
    fallback: 38,
    usual: [14, 120],
  }),
  fill: colorSetting('Fill colour', COLORS.fill),
  ink: colorSetting('Text colour', COLORS.ink),
};

interface Sized {
  readonly size: number;
}

interface Words {
  readonly tip: Point;
  readonly offset: { readonly dx: number; readonly dy: number };
}

/** New words beside a spot, towards the middle of the picture. */
export const wordsAt = ({ at, size, frame }: Spot) => ({
  text: 'Look here',
  tip: { ...at },
  offset: {
    dx: at.x < size.width / 2 ? frame.height * 0.25 : -frame.height * 0.25,
    dy: at.y < size.height / 2 ? frame.height * 0.16 : -frame.height * 0.16,
  },
  size: Math.round(frame.height * 0.035),
  ...COLORS,
});

/** Words in a picture, and how they point at their spot. */
export const wordsLayers = (
  { text, tip, offset, size, fill, ink }: Words & Pick<WordsMark, 'text' | 'fill' | 'ink'> & Sized,
  scene: CalloutScene,
  pointing: WordsMark['pointing'],
): Layer[] =>
  drawn(scene, {
    ...{ kind: 'words', text, fill, ink, pointing },
    tip: scene.toOutput(tip),
    offset: { dx: offset.dx * scene.ratio, dy: offset.dy * scene.ratio },
    fontSize: size * scene.ratio,
  });

/** The handles of words: what they point at, and where they stand. */
export const wordsHandles = ({ tip, offset }: Words, label: string): Handle[] => [
  { id: 'tip', label, look: 'point', at: tip, shift: { dx: 0, dy: 0 }, size: null },
  { id: 'words', label: 'The text', look: 'words', at: tip, shift: offset, size: null },
];

/** What becomes of words when one of their handles is moved. */
export const withWordsHandle = ({ tip, offset }: Words, id: string, { by, frame }: Move) =>
  id === WHOLE
    ? { tip: shifted(tip, by) }
    : id === 'tip'
      ? {
          tip: shifted(tip, by),
          // The words stay where they are.
          offset: { dx: offset.dx - frame.dx, dy: offset.dy - frame.dy },
        }
      : { offset: { dx: offset.dx + frame.dx, dy: offset.dy + frame.dy } };
