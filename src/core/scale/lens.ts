import { colorSetting, numberSetting, switchSetting } from '../schema/setting';

/*
 * What the pointer's lens and a lens as a callout have in common.
 */

/** Closer by less than this is no magnification. */
export const LEAST_POWER = 1.02;
/** A lens with a shorter side than this, in output pixels, is not drawn. */
export const LEAST_LENS = 16;

/** The nearest even number: planes of chroma have half the pixels. */
export const even = (n: number): number => Math.round(n / 2) * 2;

/** The settings of how much larger a lens shows things. */
export const magnification = {
  power: numberSetting({
    label: 'Magnification',
    description: 'Times as large as the picture around it.',
    unit: '×',
    min: 1,
    max: 6,
    step: 0.1,
    fallback: 2,
    usual: [1, 4],
  }),
  sharp: {
    ...switchSetting('No closer than the sharp limit', true),
    description: 'Magnifies only as far as the pixels of the recording go.',
  },
};

/** The settings of a lens's border. */
export const border = {
  color: colorSetting('Colour', '#1e2a32'),
  line: numberSetting({
    label: 'Line',
    description: 'Width of its border in frame pixels.',
    unit: 'px',
    min: 0,
    max: 40,
    step: 1,
    fallback: 4,
    usual: [0, 16],
  }),
};
