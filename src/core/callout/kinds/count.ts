import { oneOf, Point } from '../../schema/parts';
import { colorSetting, numberSetting } from '../../schema/setting';
import { readability } from '../contrast';
import { calloutSchema, drawn, shifted, type CalloutKind } from '../kind';
import { USUAL_MOTION } from '../motion';

/** Height of the digits as a share of the disc's diameter. */
const DIGITS = 0.56;

const DIGIT_LETTERING = { weight: 600, align: 'start', outline: null, shadow: false } as const;

const schema = calloutSchema('count', {
  at: Point,
  size: numberSetting({
    label: 'Size',
    description: 'Diameter of the disc in frame pixels.',
    unit: 'px',
    min: 12,
    max: 400,
    step: 1,
    fallback: 64,
    usual: [24, 160],
  }),
  fill: colorSetting('Fill colour', '#8e3f66'),
  ink: colorSetting('Text colour', '#ffffff'),
  over: oneOf(['project', 'step'], {
    title: 'Counts over',
    labels: ['Whole project', 'Its step'],
    default: 'project',
    description: 'Where the numbers begin with 1.',
  }),
});

/** A disc with a number that follows from the counts before it. */
export const count: CalloutKind<typeof schema> = {
  schema,
  name: 'count',
  level: 'above',
  title: () => 'count',
  create: ({ at, frame }) => ({
    kind: 'count',
    at: { ...at },
    size: Math.round(frame.height * 0.06),
    fill: '#8e3f66',
    ink: '#ffffff',
    over: 'project',
    ...USUAL_MOTION,
  }),
  marks({ at, size, fill, ink }, scene) {
    const center = scene.toOutput(at);
    const diameter = size * scene.ratio;
    return [
      ...drawn(scene, { kind: 'disc', center, diameter, color: fill, softness: 0 }),
      ...drawn(scene, {
        kind: 'words',
        text: String(scene.number),
        tip: center,
        offset: { dx: 0, dy: 0 },
        fontSize: diameter * DIGITS,
        ...{ fill: null, ground: false, corner: 0, ink, pointing: null },
        lettering: DIGIT_LETTERING,
        turn: scene.turn,
      }),
    ];
  },
  handles: ({ at }) => [
    { id: 'at', label: 'The count', look: 'point', at, shift: { dx: 0, dy: 0 }, size: null },
  ],
  withHandle: ({ at }, _id, { by }) => ({ at: shifted(at, by) }),
  reading: readability,
  advice: () => 'Drag it on the Picture. Its number follows from the counts that begin before it.',
};
