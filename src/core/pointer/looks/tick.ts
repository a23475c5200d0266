import { numberSetting } from '../../schema/setting';
import { lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('tick', {
  level: numberSetting({
    label: 'Level',
    description: 'Of the sound at each press.',
    unit: 'dB',
    min: -60,
    max: 6,
    step: 1,
    fallback: -18,
    usual: [-40, 0],
  }),
});

/** A short sound at each press; what is heard is planned with the rest of the sound. */
export const tick: PointerLookKind<typeof schema> = { schema, label: 'Tick', level: 'below' };
