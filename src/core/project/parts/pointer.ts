import type { Static } from '@sinclair/typebox';
import { Id, nullable, strict, Time } from '../../schema/parts';
import { colorSetting, numberSetting, shareSetting } from '../../schema/setting';

/** A soft disc behind the pointer. */
export const Halo = strict({
  size: numberSetting({
    label: 'Size',
    description: 'Diameter in frame pixels at a magnification of 1.',
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
});
export type Halo = Static<typeof Halo>;

/** What becomes of all but the pointer's surroundings. */
export const DimAround = strict({
  size: numberSetting({
    label: 'Clear',
    description: 'Diameter of what stays as it is, in frame pixels at a magnification of 1.',
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
});
export type DimAround = Static<typeof DimAround>;

/** How the pointer looks for a while. */
export const PointerSpan = strict({
  id: Id,
  start: Time,
  end: Time,
  halo: Halo,
  dim: nullable(DimAround),
});
export type PointerSpan = Static<typeof PointerSpan>;
