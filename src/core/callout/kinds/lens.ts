import { Type } from '@sinclair/typebox';
import type { Layer } from '../../frame/plan';
import { border, even, LEAST_LENS, LEAST_POWER, magnification } from '../../scale/lens';
import { middleOf, turned, type InOutput, type PointInOutput } from '../../scale/rect';
import { FootageRect, oneOf, strict } from '../../schema/parts';
import { calloutSchema, drawn, type CalloutKind } from '../kind';
import { USUAL_MOTION } from '../motion';
import { areaAt, areaHandles, withAreaHandle } from './area';

const schema = calloutSchema('lens', {
  rect: { ...FootageRect, description: 'What is shown larger.' },
  offset: strict(
    { dx: Type.Number(), dy: Type.Number() },
    { description: 'From its middle to the middle of the lens, in frame pixels.' },
  ),
  ...magnification,
  shape: oneOf(['rounded', 'ellipse'], {
    title: 'Shape',
    labels: ['Rounded', 'Ellipse'],
    default: 'rounded',
  }),
  ...border,
});

type Shape = 'rounded' | 'ellipse';

/** Of rounded corners, as a share of the shorter side. */
const ROUND = 0.12;

/** A box of a size about a middle, on even pixels and as far inside of the picture as it goes. */
function boxAbout(
  middle: PointInOutput,
  size: { readonly width: number; readonly height: number },
  output: { readonly width: number; readonly height: number },
): InOutput {
  const side = (wanted: number, most: number) => Math.min(even(wanted), Math.floor(most / 2) * 2);
  const [width, height] = [side(size.width, output.width), side(size.height, output.height)];
  const place = (wanted: number, most: number) => Math.max(0, Math.min(even(wanted), even(most)));
  return {
    x: place(middle.x - width / 2, output.width - width),
    y: place(middle.y - height / 2, output.height - height),
    ...{ width, height },
  };
}

/** Where the way from a box's middle to a point leaves the box; null when the point is within. */
function leaves(box: InOutput, to: PointInOutput, shape: Shape): PointInOutput | null {
  const from = middleOf(box);
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const [u, v] = [(2 * dx) / box.width, (2 * dy) / box.height];
  const reach = shape === 'ellipse' ? Math.hypot(u, v) : Math.max(Math.abs(u), Math.abs(v));
  return reach <= 1 ? null : { x: from.x + dx / reach, y: from.y + dy / reach };
}

const onWholePixels = ({ x, y, width, height }: InOutput): InOutput => ({
  ...{ x: Math.round(x), y: Math.round(y) },
  ...{ width: Math.max(2, Math.round(width)), height: Math.max(2, Math.round(height)) },
});

/** A spot shown larger beside it, with a line to it. */
export const lens: CalloutKind<typeof schema> = {
  schema,
  name: 'lens',
  level: 'above',
  upright: true,
  title: () => 'lens',
  create: (spot) => {
    const { at, size, frame } = spot;
    return {
      ...{ kind: 'lens', rect: areaAt(spot, 0.12, 0.1) },
      offset: {
        dx: at.x < size.width / 2 ? frame.width * 0.24 : -frame.width * 0.24,
        dy: at.y < size.height / 2 ? frame.height * 0.22 : -frame.height * 0.22,
      },
      ...{ power: 2, sharp: true, shape: 'rounded', color: '#1e2a32', line: 4 },
      ...USUAL_MOTION,
    };
  },
  marks({ rect, offset, power, sharp, shape, color, line }, scene): Layer[] {
    const { scale, ratio, output, toOutput, magnify, presence, tilt } = scene;
    if (!magnify || presence <= 0) return [];
    const most = sharp ? Math.min(power, magnify.sharp) : power;
    const at = toOutput(middleOf(rect));
    const size = { width: rect.width * scale, height: rect.height * scale };
    const spot = { x: at.x - size.width / 2, y: at.y - size.height / 2, ...size };
    const away = turned(offset.dx * ratio, offset.dy * ratio, tilt);
    const box = boxAbout(
      { x: at.x + away.x, y: at.y + away.y },
      { width: spot.width * most, height: spot.height * most },
      output,
    );
    const small = Math.min(box.width, box.height);
    if (most < LEAST_POWER || small < LEAST_LENS) return [];
    const radius = small * ROUND;
    const mask = shape === 'ellipse' ? { shape, feather: 0 } : { shape, radius, feather: 0 };
    const layers = magnify.layers(at, box, most, mask);
    if (!layers) return [];
    const picture = layers.map((layer) =>
      layer.kind === 'video' ? { ...layer, opacity: layer.opacity * presence } : layer,
    );
    if (!line) return picture;
    const width = Math.max(1, line * ratio);
    const outline = (around: InOutput, corners: number): Layer[] =>
      drawn(scene, {
        ...{ kind: 'outline', shape, radius: corners },
        ...{ box: around, fill: null, stroke: { width, color } },
      });
    // Where the lens lies over its spot there is no way between them.
    const way = [leaves(spot, middleOf(box), shape), leaves(box, at, shape)];
    const paths = [way.filter((point) => point !== null)];
    return [
      ...(paths[0]!.length === 2
        ? drawn(scene, { kind: 'lines', paths, closed: false, width, color })
        : []),
      ...outline(onWholePixels(spot), radius / most),
      ...picture,
      ...outline(box, radius),
    ];
  },
  reading: ({ power, sharp }, { magnify }) => {
    if (!magnify || power <= magnify.sharp) return null;
    const limit = `${(Math.floor(magnify.sharp * 100) / 100).toFixed(2)}×`;
    if (!sharp) return `Soft here: the recording is sharp up to ${limit}.`;
    return magnify.sharp < LEAST_POWER
      ? 'Not seen here: the view is at the sharp limit already.'
      : `Magnifies ${limit} here, as far as the recording is sharp.`;
  },
  handles: ({ rect, offset, power }) => [
    ...areaHandles(rect, 'What is shown larger'),
    {
      id: 'lens',
      label: 'Where it is shown',
      look: 'words',
      at: { x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 },
      shift: offset,
      size: { width: rect.width * power, height: rect.height * power },
    },
  ],
  withHandle: ({ rect, offset }, id, move) =>
    id === 'lens'
      ? { offset: { dx: offset.dx + move.frame.dx, dy: offset.dy + move.frame.dy } }
      : { rect: withAreaHandle(rect, id, move) },
  advice: () =>
    'Drag the rectangle on the Picture over what is small, and the dashed one to where it is to ' +
    'be seen large.',
};
