import { Type, type Static } from '@sinclair/typebox';
import { FacePath } from '../../face/follow';
import { FootageRect, Id, nullable, oneOf, strict } from '../../schema/parts';
import { numberSetting, shareSetting, switchSetting } from '../../schema/setting';

export const BLENDS = ['normal', 'multiply', 'screen'] as const;
export type Blend = (typeof BLENDS)[number];

/** What is shown of one recording, and how. The recording itself stays whole. */
export const FootageLook = strict({
  footageId: Id,
  area: {
    ...nullable(FootageRect),
    default: null,
    description: 'The part of the recording that counts as the whole; null for all of it.',
  },
  fit: oneOf(['fit', 'fill'], {
    default: 'fit',
    description:
      'Of another shape than the picture: seen whole, or filling it with its edges cut off.',
  }),
  bars: oneOf(['plain', 'blur'], {
    default: 'plain',
    description:
      'What is beside a recording that is seen whole: the background, or the recording, blurred.',
  }),
  brightness: shareSetting('Brightness', 0, {
    min: -1,
    usual: [-0.5, 0.5],
    description: 'Added to brightness; 1 is the whole range.',
  }),
  contrast: numberSetting({
    label: 'Contrast',
    description: 'Factor around mid-grey.',
    unit: '%',
    factor: 100,
    min: 0.25,
    max: 4,
    step: 0.01,
    fallback: 1,
    usual: [0.5, 2],
  }),
  exposure: numberSetting({
    label: 'Exposure',
    description: 'Stops by which there is more light; each doubles it.',
    unit: 'stops',
    min: -3,
    max: 3,
    step: 0.05,
    fallback: 0,
    usual: [-2, 2],
  }),
  saturation: numberSetting({
    label: 'Saturation',
    description: 'Factor of the colours; 0 leaves grey.',
    unit: '%',
    factor: 100,
    min: 0,
    max: 3,
    step: 0.01,
    fallback: 1,
    usual: [0, 2],
  }),
  temperature: shareSetting('Temperature', 0, {
    min: -1,
    description: 'Cooler below 0, warmer above.',
  }),
  opacity: shareSetting('Opacity', 1),
  blend: oneOf(BLENDS, {
    title: 'Blend',
    labels: ['Normal', 'Multiply', 'Lighten (screen)'],
    default: 'normal',
    description: 'How it joins what lies behind it.',
  }),
  tilt: numberSetting({
    label: 'Tilt',
    description: 'Degrees that it is turned, clockwise.',
    unit: '°',
    min: -45,
    max: 45,
    step: 0.5,
    fallback: 0,
  }),
  face: Type.Optional({
    ...nullable(FacePath),
    description: 'How what is shown of a presenter goes along with their face; null leaves it.',
  }),
  crisp: {
    ...switchSetting('Rebuild magnified text', true),
    description: 'Whether its text is rebuilt where it is magnified, if the project says so too.',
  },
});
export type FootageLook = Static<typeof FootageLook>;
