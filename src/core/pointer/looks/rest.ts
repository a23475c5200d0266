import { numberSetting } from '../../schema/setting';
import { restAt } from '../../telemetry/rest';
import { lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('rest', {
  after: numberSetting({
    label: 'Fades after',
    description: 'Seconds of stillness.',
    unit: 's',
    min: 0.5,
    max: 30,
    step: 0.5,
    fallback: 3,
    usual: [0.5, 10],
  }),
});

/** Fading out and back in takes so long, in milliseconds. */
const FADE_MS = 400;

/** The pointer and what is drawn behind it fade while it rests, and are back before it moves. */
export const rest: PointerLookKind<typeof schema> = {
  schema,
  label: 'Rest',
  level: 'below',
  paintsOut: true,
  note:
    'A pointer that the recording itself shows fades where other pictures show what lies beneath; ' +
    'what is drawn behind it fades in any case.',
  treat({ after }, shown, { track, ms, strength }) {
    const { since, until } = restAt(track, ms, after * 1000 + FADE_MS);
    const gone = Math.min(1, Math.max(0, (since - after * 1000) / FADE_MS));
    const back = Math.min(1, Math.max(0, 1 - until / FADE_MS));
    const left = 1 - strength * Math.max(0, gone - back);
    return { ...shown, presence: shown.presence * left, bare: 1 - (1 - shown.bare) * left };
  },
};
