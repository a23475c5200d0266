import { colorSetting, numberSetting, shareSetting } from '../../schema/setting';
import { GROWS, lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('halo', {
  size: numberSetting({
    label: 'Size',
    description: 'Diameter in frame pixels.',
    unit: 'px',
    min: 8,
    max: 1000,
    step: 2,
    fallback: 130,
    usual: [30, 400],
  }),
  color: colorSetting('Colour', '#f2b134'),
  softness: shareSetting('Softness', 0.6, {
    description: '0 is a hard edge; 1 fades from the middle.',
  }),
  opacity: shareSetting('Opacity', 0.6),
  ...GROWS,
});

/** A soft disc behind the pointer: warm, wide enough to be seen on a laptop. */
export const halo: PointerLookKind<typeof schema> = {
  schema,
  label: 'Halo',
  level: 'below',
  rests: true,
  marks: ({ size, color, softness, opacity }, { tip, scale, strength }) => [
    {
      kind: 'drawing',
      mark: { kind: 'disc', center: tip, diameter: size * scale, color, softness },
      opacity: opacity * strength,
      blend: 'tint',
    },
  ],
};
