import { Id, FootageRect } from '../../schema/parts';
import { shareSetting } from '../../schema/setting';
import type { Size } from '../../scale/rect';
import { calloutSchema, drawn, type CalloutKind, type Spot } from '../kind';
import { USUAL_MOTION } from '../motion';
import { areaHandles, withAreaHandle } from './area';

const schema = calloutSchema('picture', {
  footageId: { ...Id, description: 'The still that is shown.' },
  rect: { ...FootageRect, description: 'Where it is shown, in the shape of the still.' },
  corner: shareSetting('Corners', 0, {
    description: 'Radius of its corners, as a share of half of its shorter side.',
  }),
});

/** A new one is so high, as a share of the frame's height, unless it is smaller itself. */
const NEW_HEIGHT = 0.3;

/** A still in the middle of a spot, no larger than it is. */
export function pictureAt({ at, size, frame }: Spot, footageId: string, still: Size) {
  // Pixels of what it stands on for one of the frame's.
  const ratio = size.height / frame.height;
  const scale = Math.min(1, (NEW_HEIGHT * frame.height) / still.height) * ratio;
  const [width, height] = [Math.max(8, still.width * scale), Math.max(8, still.height * scale)];
  return {
    ...{ kind: 'picture' as const, footageId, corner: 0 },
    rect: { x: at.x - width / 2, y: at.y - height / 2, width, height },
    ...USUAL_MOTION,
  };
}

/** A still of the footage: a logo, a sticker, a diagram; it may be see-through in parts. */
export const picture: CalloutKind<typeof schema> = {
  schema,
  name: 'picture',
  level: 'above',
  title: () => 'picture',
  create: null,
  marks({ rect, corner, footageId }, scene) {
    const { scale, toOutput, turn } = scene;
    const [width, height] = [rect.width * scale, rect.height * scale];
    if (width < 1 || height < 1) return [];
    const center = toOutput({ x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 });
    return drawn(scene, {
      ...{ kind: 'picture', footageId, turn },
      box: { x: center.x - width / 2, y: center.y - height / 2, width, height },
      corner: (corner * Math.min(width, height)) / 2,
    });
  },
  handles: ({ rect }) => areaHandles(rect, 'The picture'),
  withHandle({ rect }, id, move) {
    if (id !== 'corner') return { rect: withAreaHandle(rect, id, move) };
    // Of its own shape whatever way the corner is pulled.
    const { width, height } = withAreaHandle(rect, id, move);
    const share = Math.max(width / rect.width, height / rect.height);
    return { rect: { ...rect, width: rect.width * share, height: rect.height * share } };
  },
  advice: () => 'Drag it, or its corner, on the Picture. It keeps its shape.',
};
