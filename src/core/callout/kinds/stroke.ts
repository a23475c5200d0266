import { Type } from '@sinclair/typebox';
import { oneOf } from '../../schema/parts';
import { colorSetting } from '../../schema/setting';
import { boundsOf, linesSchema, drawn, type CalloutKind } from '../kind';
import { partOfPaths } from '../part-of-path';
import { LineWidth } from './two-points';

const schema = linesSchema('stroke', {
  tool: oneOf(['pen', 'marker'], { description: 'A marker pen is see-through.' }),
  points: Type.Array(Type.Tuple([Type.Number(), Type.Number(), Type.Number()]), {
    minItems: 1,
    maxItems: 20000,
    description: '`[ms, x, y]`: milliseconds after the start, pixels of what it stands on.',
  }),
  width: LineWidth,
  color: colorSetting('Colour', '#c2412d'),
});

const MARKER_PEN_OPACITY = 0.4;

/** A freehand line that appears as it was drawn. */
export const stroke: CalloutKind<typeof schema> = {
  schema,
  name: 'drawing',
  level: 'below',
  title: ({ tool }) => (tool === 'marker' ? 'marker pen' : 'pen'),
  create: null,
  marks(item, scene) {
    const { ms, scale, toOutput } = scene;
    const written = item.points.filter(([t]) => t <= ms).map(([, x, y]) => toOutput({ x, y }));
    const [path] = partOfPaths([written], scene.drawn);
    if (!path?.length) return [];
    return drawn(
      scene,
      {
        kind: 'lines',
        paths: [path],
        closed: false,
        width: Math.max(1, item.width * scale),
        color: item.color,
      },
      item.tool === 'marker' ? MARKER_PEN_OPACITY : 1,
    );
  },
  handles: ({ points }) => [
    {
      id: 'area',
      label: 'The drawing',
      look: 'area',
      ...boundsOf(points.map(([, x, y]) => ({ x, y }))),
      shift: { dx: 0, dy: 0 },
    },
  ],
  withHandle: ({ points }, _id, { by }) => ({
    points: points.map(([t, x, y]) => [t, x + by.dx, y + by.dy]),
  }),
  advice: () => 'Drag it on the Picture.',
};
