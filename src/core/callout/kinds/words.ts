import { Type, type Static, type TObject } from '@sinclair/typebox';
import type { WordsMark } from '../../frame/mark';
import type { Layer } from '../../frame/plan';
import { oneOf, Point, strict } from '../../schema/parts';
import { colorSetting, numberSetting, shareSetting, switchSetting } from '../../schema/setting';
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

/** How heavy the letters are. */
export const weightSetting = oneOf(['regular', 'medium', 'bold'], {
  title: 'Weight',
  labels: ['Regular', 'Medium', 'Bold'],
  default: 'medium',
});

/** How round the ground of words is. */
export const cornerSetting = shareSetting('Corners', 0, {
  description: 'Radius of the corners of its ground, as a share of the text size.',
});

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
  weight: weightSetting,
  align: oneOf(['start', 'middle', 'end'], {
    title: 'Alignment',
    labels: ['Start', 'Middle', 'End'],
    default: 'start',
    description: 'Where lines that are shorter than the longest stand.',
  }),
  corner: cornerSetting,
  outline: numberSetting({
    label: 'Outline',
    description: 'Width of an outline of the letters, in frame pixels.',
    unit: 'px',
    min: 0,
    max: 40,
    step: 0.5,
    fallback: 0,
    usual: [0, 12],
  }),
  edge: colorSetting('Outline colour', '#1e2a32'),
  shadow: switchSetting('Shadow', false),
};

const WEIGHTS = { regular: 400, medium: 600, bold: 800 } as const;

/** What is the same in all new words. */
export const LETTERS = {
  weight: 'medium',
  align: 'start',
  corner: 0,
  outline: 0,
  edge: '#1e2a32',
  shadow: false,
} as const;

/** The settings of words that count as they are now. */
export const wordsSettings =
  (schema: TObject) =>
  (item: { readonly outline: number; readonly ground?: boolean }): string[] =>
    Object.keys(schema.properties).filter(
      (name) =>
        (name !== 'edge' || item.outline > 0) && (name !== 'corner' || item.ground !== false),
    );

interface Words {
  readonly tip: Point;
  readonly offset: { readonly dx: number; readonly dy: number };
}

/** Words with all that their kinds have in common. */
type Lettered = Words & Omit<Static<TObject<typeof wordsProperties>>, keyof Words>;

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
  ...LETTERS,
});

/** Words in a picture, and how they point at their spot. */
export const wordsLayers = (
  item: Lettered,
  scene: CalloutScene,
  pointing: WordsMark['pointing'],
  ground = true,
): Layer[] => {
  const { text, tip, offset, size, fill, ink, weight, align, outline, edge, shadow } = item;
  const { ratio, turn } = scene;
  return drawn(scene, {
    ...{ kind: 'words', text, fill, ground, ink, pointing, turn },
    tip: scene.toOutput(tip),
    offset: { dx: offset.dx * ratio, dy: offset.dy * ratio },
    fontSize: size * ratio,
    corner: item.corner * size * ratio,
    lettering: {
      ...{ weight: WEIGHTS[weight], align, shadow },
      outline: outline > 0 ? { width: outline * ratio, color: edge } : null,
    },
  });
};

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
