import { switchSetting } from '../../schema/setting';
import { readability } from '../contrast';
import { calloutSchema, type CalloutKind } from '../kind';
import { USUAL_MOTION } from '../motion';
import {
  LETTERS,
  withWordsHandle,
  wordsAt,
  wordsHandles,
  wordsLayers,
  wordsProperties,
  wordsSettings,
} from './words';

const schema = calloutSchema('text', {
  ...wordsProperties,
  arrow: switchSetting('Arrow', true),
  ground: switchSetting('Ground', true),
});

/** How a text looks, but for its colours, unless something else is wanted. */
export const PLAIN_TEXT = { ...LETTERS, ground: true } as const;

/** A few words in a box, with an arrow to a spot. */
export const text: CalloutKind<typeof schema> = {
  schema,
  name: 'callout',
  level: 'above',
  title: ({ text: words }) => words,
  create: (spot) => ({
    kind: 'text',
    ...wordsAt(spot),
    arrow: true,
    ground: true,
    ...USUAL_MOTION,
  }),
  marks: (item, scene) => wordsLayers(item, scene, item.arrow ? 'arrow' : null, item.ground),
  settings: wordsSettings(schema),
  handles: (item) => wordsHandles(item, 'Where the arrow points'),
  withHandle: withWordsHandle,
  reading: readability,
  advice: () =>
    'Drag the round handle on the Picture to what the arrow should point at, the dashed one to ' +
    'place the text.',
};
