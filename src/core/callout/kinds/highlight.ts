import { FootageRect } from '../../schema/parts';
import { colorSetting, shareSetting } from '../../schema/setting';
import { linesSchema, type CalloutKind } from '../kind';
import { areaAt, areaHandles, withAreaHandle } from './area';

const schema = linesSchema('highlight', {
  rect: FootageRect,
  color: colorSetting('Colour', '#f2c230'),
  strength: shareSetting('Strength', 0.6, { description: 'How much of the colour is laid on.' }),
});

/** Colour over a line of text, which stays dark: drawn on from the left. */
export const highlight: CalloutKind<typeof schema> = {
  schema,
  name: 'marker pen',
  level: 'below',
  title: () => 'marker pen',
  create: (spot) => ({
    kind: 'highlight',
    rect: areaAt(spot, 0.2, 0.03),
    color: '#f2c230',
    strength: 0.6,
    ...{ entrance: 'draw', exit: 'fade', pace: 0.4 },
  }),
  marks({ rect, color, strength }, { presence, drawn, scale, toOutput }) {
    const middle = rect.y + rect.height / 2;
    // The ends of a line are round; they lie within the rectangle.
    const half = Math.min(rect.width, rect.height) / 2;
    const from = rect.x + half;
    const to = from + (rect.width - 2 * half) * drawn;
    const opacity = presence * strength;
    if (opacity <= 0 || drawn <= 0) return [];
    return [
      {
        kind: 'drawing',
        mark: {
          kind: 'lines',
          paths: [[toOutput({ x: from, y: middle }), toOutput({ x: to, y: middle })]],
          closed: false,
          width: Math.max(1, 2 * half * scale),
          color,
        },
        opacity,
        blend: 'tint',
      },
    ];
  },
  handles: ({ rect }) => areaHandles(rect, 'What is marked'),
  withHandle: ({ rect }, id, move) => ({ rect: withAreaHandle(rect, id, move) }),
  advice: () => 'Drag it on the Picture over a line of text, and its corner to the line’s end.',
};
