import { Type } from '@sinclair/typebox';
import { FootageRect } from '../../schema/parts';
import { colorSetting, shareSetting } from '../../schema/setting';
import { linesSchema, type CalloutKind } from '../kind';
import { areaAt, areaHandles, withAreaHandle } from './area';

const schema = linesSchema('highlight', {
  rect: FootageRect,
  lines: Type.Array(FootageRect, {
    maxItems: 200,
    description: 'The lines of text that are marked one after the other; none for all of it.',
  }),
  color: colorSetting('Colour', '#f2c230'),
  strength: shareSetting('Strength', 0.6, { description: 'How much of the colour is laid on.' }),
});

/** The part of lines that is drawn, one after the other from their left. */
function partsDrawn(rects: readonly FootageRect[], share: number) {
  const lines = rects.map(({ x, y, width, height }) => {
    // The ends of a line are round; they lie within the rectangle.
    const half = Math.min(width, height) / 2;
    return { x: x + half, y: y + height / 2, length: width - 2 * half, width: 2 * half };
  });
  let left = share * lines.reduce((sum, { length }) => sum + length, 0);
  return lines.flatMap(({ x, y, length, width }, i) => {
    const part = Math.min(length, left);
    left -= length;
    if (part < 0 || (part === 0 && i > 0 && share < 1)) return [];
    return [{ from: { x, y }, to: { x: x + part, y }, width }];
  });
}

/** Colour over lines of text, which stay dark: drawn on from the left. */
export const highlight: CalloutKind<typeof schema> = {
  schema,
  name: 'marker pen',
  level: 'below',
  title: () => 'marker pen',
  create: (spot) => ({
    kind: 'highlight',
    rect: areaAt(spot, 0.2, 0.03),
    lines: [],
    color: '#f2c230',
    strength: 0.6,
    ...{ entrance: 'draw', exit: 'fade', pace: 0.4, ease: 'even' },
  }),
  marks({ rect, lines, color, strength }, { presence, drawn, scale, toOutput }) {
    const opacity = presence * strength;
    if (opacity <= 0 || drawn <= 0) return [];
    return partsDrawn(lines.length ? lines : [rect], drawn).map(({ from, to, width }) => ({
      kind: 'drawing',
      mark: {
        kind: 'lines',
        paths: [[toOutput(from), toOutput(to)]],
        closed: false,
        width: Math.max(1, width * scale),
        color,
      },
      opacity,
      blend: 'tint',
    }));
  },
  handles: ({ rect }) => areaHandles(rect, 'What is marked'),
  withHandle: ({ rect, lines }, id, move) => ({
    rect: withAreaHandle(rect, id, move),
    // Its lines are those of where it lay; a size of another's making has none yet.
    lines: id === 'corner' ? [] : lines.map((line) => withAreaHandle(line, id, move)),
  }),
  advice: () => 'Drag it on the Picture over a line of text, and its corner to the line’s end.',
};
