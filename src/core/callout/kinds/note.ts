import { readability } from '../contrast';
import { calloutSchema, type CalloutKind } from '../kind';
import { USUAL_MOTION } from '../motion';
import {
  withWordsHandle,
  wordsAt,
  wordsHandles,
  wordsLayers,
  wordsProperties,
  wordsSettings,
} from './words';

const schema = calloutSchema('note', wordsProperties);

/** A few words in a rounded box with a tail to a spot, as of somebody who speaks. */
export const note: CalloutKind<typeof schema> = {
  schema,
  name: 'speech note',
  level: 'above',
  title: ({ text: words }) => words,
  create: (spot) => ({ kind: 'note', ...wordsAt(spot), corner: 0.5, ...USUAL_MOTION }),
  marks: (item, scene) => wordsLayers(item, scene, 'tail'),
  settings: wordsSettings(schema),
  handles: (item) => wordsHandles(item, 'Where the tail ends'),
  withHandle: withWordsHandle,
  reading: readability,
  advice: () =>
    'Drag the round handle on the Picture to where the tail should end, the dashed one to place ' +
    'the text.',
};
