import { oneOf } from '../../schema/parts';
import { numberSetting, shareSetting } from '../../schema/setting';
import { GROWS, lookSchema, type PointerLookKind } from '../look';

/** What stays clear: a disc, or a part with the shape of a view. */
const SHAPES = ['disc', 'view'] as const;
const VIEW_HEIGHT = 9 / 16;

const schema = lookSchema('dim', {
  size: numberSetting({
    label: 'Clear',
    description: 'Diameter of what stays as it is, in frame pixels.',
    unit: 'px',
    min: 8,
    max: 4000,
    step: 10,
    fallback: 420,
    usual: [80, 1600],
  }),
  softness: shareSetting('Edge', 0.5, {
    description: 'Width of the edge as a share of the diameter.',
  }),
  dark: shareSetting('Darken', 0.45, { description: 'How dark the rest becomes.' }),
  drained: shareSetting('Desaturate', 0.3, {
    description: 'How much of its colour the rest loses.',
  }),
  blur: numberSetting({
    label: 'Blur',
    description: 'Radius of a blur of the rest, in frame pixels.',
    unit: 'px',
    min: 0,
    max: 60,
    step: 1,
    fallback: 0,
    usual: [0, 24],
  }),
  shape: oneOf(SHAPES, { title: 'Shape', labels: ['Disc', 'View'], default: 'disc' }),
  ...GROWS,
});

/** All but the pointer's surroundings darkened or drained of colour. */
export const dim: PointerLookKind<typeof schema> = {
  schema,
  label: 'Dim around',
  level: 'below',
  marks({ size, softness, dark, drained, blur, shape }, { tip, scale, stage, strength }) {
    const outer = (size * scale) / 2;
    const inner = outer * (1 - softness);
    return [
      {
        kind: 'region',
        area: stage,
        effect: {
          ...{ kind: 'dim', center: tip, inner, outer },
          ...{ dark: dark * strength, drained: drained * strength },
          ...(shape === 'view' ? { shape: 'box', tall: VIEW_HEIGHT } : { shape, tall: 1 }),
          blur: blur * scale * strength,
        },
      },
    ];
  },
};
