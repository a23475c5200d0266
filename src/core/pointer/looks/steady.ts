import { shareSetting } from '../../schema/setting';
import { lookSchema, type PointerLookKind } from '../look';
import { steadiedAt } from '../steady';

const schema = lookSchema('steady', {
  strength: shareSetting('Strength', 0.5, {
    description: 'Presses stay where they are; corners are not cut.',
  }),
});

/** The pointer without its jitter and fidgets, and what is drawn at it. */
export const steady: PointerLookKind<typeof schema> = {
  schema,
  label: 'Steady',
  level: 'below',
  note: 'A pointer that the recording itself shows stays as it is; what is drawn at it is steadied.',
  treat({ strength }, shown, moment) {
    const at = steadiedAt(moment.track, strength, moment.ms);
    const by = moment.strength;
    return {
      ...shown,
      at: {
        x: shown.at.x + (at.x - shown.at.x) * by,
        y: shown.at.y + (at.y - shown.at.y) * by,
      },
    };
  },
};
