import { switchSetting } from '../../schema/setting';
import { calloutSchema, drawn, type CalloutKind } from '../kind';
import { placedWords, withWordsHandle, wordsAt, wordsHandles, wordsProperties } from './words';

const schema = calloutSchema('text', { ...wordsProperties, arrow: switchSetting('Arrow', true) });

/** A few words in a box, with an arrow to a spot. */
export const text: CalloutKind<typeof schema> = {
  schema,
  name: 'callout',
  level: 'above',
  title: ({ text: words }) => words,
  create: (spot) => ({ kind: 'text', ...wordsAt(spot), arrow: true }),
  marks: (item, scene) =>
    drawn(scene, {
      kind: 'words',
      text: item.text,
      ...placedWords(item, scene),
      fill: item.fill,
      ink: item.ink,
      pointing: item.arrow ? 'arrow' : null,
    }),
  handles: (item) => wordsHandles(item, 'Where the arrow points'),
  withHandle: withWordsHandle,
  advice: () =>
    'Drag the round handle on the Picture to what the arrow should point at, the dashed one to ' +
    'place the text.',
};
