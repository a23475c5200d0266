import type { Layer } from '../../frame/plan';
import { border, magnification } from '../../scale/lens';
import { numberSetting } from '../../schema/setting';
import { GROWS, lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('lens', {
  size: numberSetting({
    label: 'Size',
    description: 'Diameter in frame pixels.',
    unit: 'px',
    min: 40,
    max: 1200,
    step: 10,
    fallback: 260,
    usual: [80, 700],
  }),
  ...magnification,
  ...border,
  ...GROWS,
});

/** A pointer within the lens is no higher than this share of it, so that it stays within. */
const LARGEST_POINTER = 0.3;
/** The shadow reaches so far beyond the lens, as a share of its size. */
const SHADOW = 0.16;

/** A magnified inset at the pointer, with a border and a shadow. */
export const lens: PointerLookKind<typeof schema> = {
  schema,
  label: 'Lens',
  level: 'above',
  note: 'Not seen where the view is at the sharp limit already, unless it may go closer.',
  marks({ size, power, sharp, color, line }, scene): Layer[] {
    const { scale, strength, drawn } = scene;
    if (strength <= 0) return [];
    // It opens and closes with the span's fades.
    const { layers, box, tip, power: reached } = scene.inset(size * scale * strength, power, sharp);
    if (!layers.length) return [];
    const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    const shadow: Layer = {
      kind: 'drawing',
      mark: {
        ...{ kind: 'disc', color: '#000000', softness: 0.25 },
        center: { x: middle.x, y: middle.y + box.height * SHADOW * 0.25 },
        diameter: Math.round((box.width * (1 + SHADOW)) / 2) * 2,
      },
      opacity: 0.4,
      blend: 'normal',
    };
    const border: Layer[] = line
      ? [
          {
            kind: 'drawing',
            mark: {
              ...{ kind: 'outline', shape: 'ellipse', radius: 0, box, fill: null },
              stroke: { width: Math.max(1, line * scale), color },
            },
            opacity: 1,
            blend: 'normal',
          },
        ]
      : [];
    const height = Math.min((drawn?.mark.height ?? 0) * reached, box.height * LARGEST_POINTER);
    const within: Layer[] = drawn
      ? [
          {
            kind: 'drawing',
            mark: { ...drawn.mark, tip, height },
            opacity: drawn.opacity,
            blend: 'normal',
          },
        ]
      : [];
    return [shadow, ...layers, ...within, ...border];
  },
};
