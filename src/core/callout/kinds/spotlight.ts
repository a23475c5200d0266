import { FootageRect } from '../../schema/parts';
import { numberSetting, shareSetting } from '../../schema/setting';
import { calloutSchema, type CalloutKind } from '../kind';
import { USUAL_MOTION } from '../motion';
import { areaAt, areaHandles, withAreaHandle } from './area';

const schema = calloutSchema('spotlight', {
  rect: FootageRect,
  dark: shareSetting('Darken', 0.5, { description: 'How dark the rest becomes.' }),
  drained: shareSetting('Desaturate', 0.3, {
    description: 'How much of its colour the rest loses.',
  }),
  blur: numberSetting({
    label: 'Blur',
    description: 'Radius of a blur of the rest, in pixels of what it stands on.',
    unit: 'px',
    min: 0,
    max: 60,
    step: 1,
    fallback: 0,
    usual: [0, 24],
  }),
  softness: numberSetting({
    label: 'Edge',
    description: 'Width of the soft edge, in pixels of what it stands on.',
    unit: 'px',
    min: 0,
    max: 400,
    step: 1,
    fallback: 12,
    usual: [0, 80],
  }),
});

/** All but a rectangle darkened, drained of colour or blurred. */
export const spotlight: CalloutKind<typeof schema> = {
  schema,
  name: 'dim outside',
  level: 'below',
  upright: true,
  title: () => 'dim outside',
  create: (spot) => ({
    kind: 'spotlight',
    rect: areaAt(spot, 0.3, 0.25),
    dark: 0.5,
    drained: 0.3,
    blur: 0,
    softness: 12,
    ...USUAL_MOTION,
  }),
  marks({ rect, dark, drained, blur, softness }, { presence, scale, stage, toOutput }) {
    if (presence <= 0) return [];
    const outer = (rect.width * scale) / 2;
    // An edge as wide as the clear part would leave nothing clear.
    const edge = Math.min(softness * scale, outer / 2, (rect.height * scale) / 4);
    return [
      {
        kind: 'region',
        area: stage,
        effect: {
          kind: 'dim',
          center: toOutput({ x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 }),
          ...{ inner: outer - edge, outer, shape: 'box', tall: rect.height / rect.width },
          ...{ dark: dark * presence, drained: drained * presence, blur: blur * scale * presence },
        },
      },
    ];
  },
  handles: ({ rect }) => areaHandles(rect, 'What stays clear'),
  withHandle: ({ rect }, id, move) => ({ rect: withAreaHandle(rect, id, move) }),
  advice: () => 'Drag the rectangle on the Picture over what is to be seen.',
};
