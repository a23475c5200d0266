import { Type } from '@sinclair/typebox';
import { Point, strict } from '../../schema/parts';
import { colorSetting, numberSetting, switchSetting } from '../../schema/setting';
import { calloutSchema, drawn, shifted, WHOLE, type CalloutKind } from '../kind';

const schema = calloutSchema('text', {
  text: Type.String({ maxLength: 2000 }),
  tip: { ...Point, description: 'What the arrow points at.' },
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
  fill: colorSetting('Fill colour', '#8e3f66'),
  ink: colorSetting('Text colour', '#ffffff'),
  arrow: switchSetting('Arrow', true),
});

/** A few words in a box, with an arrow to a spot. */
export const text: CalloutKind<typeof schema> = {
  schema,
  name: 'callout',
  level: 'above',
  title: ({ text: words }) => words,
  create: ({ at, size, frame }) => ({
    kind: 'text',
    text: 'Look here',
    tip: { ...at },
    offset: {
      dx: at.x < size.width / 2 ? frame.height * 0.25 : -frame.height * 0.25,
      dy: at.y < size.height / 2 ? frame.height * 0.16 : -frame.height * 0.16,
    },
    size: Math.round(frame.height * 0.035),
    fill: '#8e3f66',
    ink: '#ffffff',
    arrow: true,
  }),
  marks: (item, scene) =>
    drawn(scene, {
      kind: 'words',
      text: item.text,
      tip: scene.toOutput(item.tip),
      offset: { dx: item.offset.dx * scene.ratio, dy: item.offset.dy * scene.ratio },
      fontSize: item.size * scene.ratio,
      fill: item.fill,
      ink: item.ink,
      arrow: item.arrow,
    }),
  handles: ({ tip, offset }) => [
    {
      id: 'tip',
      label: 'Where the arrow points',
      look: 'point',
      at: tip,
      shift: { dx: 0, dy: 0 },
      size: null,
    },
    { id: 'words', label: 'The text', look: 'words', at: tip, shift: offset, size: null },
  ],
  withHandle: ({ tip, offset }, id, { by, frame }) =>
    id === WHOLE
      ? { tip: shifted(tip, by) }
      : id === 'tip'
        ? {
            tip: shifted(tip, by),
            // The words stay where they are.
            offset: { dx: offset.dx - frame.dx, dy: offset.dy - frame.dy },
          }
        : { offset: { dx: offset.dx + frame.dx, dy: offset.dy + frame.dy } },
  advice: () =>
    'Drag the round handle on the Picture to what the arrow should point at, the dashed one to ' +
    'place the text.',
};
