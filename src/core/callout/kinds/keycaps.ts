import { Type } from '@sinclair/typebox';
import { Point } from '../../schema/parts';
import { colorSetting, numberSetting } from '../../schema/setting';
import { readability } from '../contrast';
import { calloutSchema, drawn, shifted, type CalloutKind } from '../kind';
import { USUAL_MOTION } from '../motion';

const schema = calloutSchema('keycaps', {
  text: Type.String({ maxLength: 80, description: 'Keys with a + between them, as in Ctrl+K.' }),
  at: Point,
  size: numberSetting({
    label: 'Text size',
    description: 'Height of the letters in frame pixels.',
    unit: 'px',
    min: 10,
    max: 200,
    step: 1,
    fallback: 36,
    usual: [16, 90],
  }),
  fill: colorSetting('Fill colour', '#fffdf8'),
  ink: colorSetting('Text colour', '#1e2a32'),
});

/** The keys that stand in a text with a + between them; a + may be one of them. */
export const keysIn = (text: string): string[] =>
  text
    .split(/\+(?=.)/)
    .map((key) => key.trim())
    .filter(Boolean);

/** Keys to press, drawn as they are on a keyboard. */
export const keycaps: CalloutKind<typeof schema> = {
  schema,
  name: 'keycaps',
  level: 'above',
  title: ({ text }) => text || 'keycaps',
  create: ({ at, frame }) => ({
    ...{ kind: 'keycaps', text: 'Ctrl+K', at: { ...at } },
    size: Math.round(frame.height * 0.035),
    ...{ fill: '#fffdf8', ink: '#1e2a32' },
    ...USUAL_MOTION,
  }),
  marks({ text, at, size, fill, ink }, scene) {
    const caps = keysIn(text);
    if (!caps.length) return [];
    return drawn(scene, {
      ...{ kind: 'keys', caps, fontSize: size * scene.ratio, fill, ink },
      ...{ at: scene.toOutput(at), align: 'middle', from: 'top', turn: scene.turn },
    });
  },
  handles: ({ at }) => [
    { id: 'at', label: 'The keycaps', look: 'point', at, shift: { dx: 0, dy: 0 }, size: null },
  ],
  withHandle: ({ at }, _id, { by }) => ({ at: shifted(at, by) }),
  reading: readability,
  advice: () => 'Type keys with a + between them. Drag it on the Picture.',
};
