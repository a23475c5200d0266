import { assertNever } from '../../assert-never';
import type { OutlineMark } from '../../frame/mark';
import type { InOutput, PointInOutput } from '../../scale/rect';
import { colorSetting, numberSetting } from '../../schema/setting';
import { GROWS, lookSchema, type PointerLookKind, type PointerScene } from '../look';

const schema = lookSchema('ring', {
  size: numberSetting({
    label: 'Size',
    description: 'Diameter in frame pixels when it is widest.',
    unit: 'px',
    min: 8,
    max: 600,
    step: 2,
    fallback: 90,
    usual: [30, 240],
  }),
  line: numberSetting({
    label: 'Line',
    description: 'Width of its line in frame pixels.',
    unit: 'px',
    min: 1,
    max: 40,
    step: 1,
    fallback: 5,
    usual: [1, 16],
  }),
  time: numberSetting({
    label: 'Stays for',
    description: 'How long it is seen after the press, in seconds.',
    unit: 's',
    min: 0.1,
    max: 3,
    step: 0.1,
    fallback: 0.6,
    usual: [0.2, 1.5],
  }),
  color: colorSetting('Colour', '#b3541e'),
  ...GROWS,
});

/** It begins with this share of its size. */
const FIRST = 0.45;
/** The second ring of a double press, as a share of the first. */
const INNER = 0.6;

const around = (spot: PointInOutput, side: number): InOutput => ({
  ...{ x: spot.x - side / 2, y: spot.y - side / 2 },
  ...{ width: side, height: side },
});

/** What tells the kinds of presses apart: their form, and not their colour. */
function formsOf(kind: NonNullable<PointerScene['press']>['kind']): readonly {
  readonly shape: OutlineMark['shape'];
  readonly size: number;
  readonly fill: boolean;
}[] {
  switch (kind) {
    case 'main':
      return [{ shape: 'ellipse', size: 1, fill: false }];
    case 'second':
      return [{ shape: 'rectangle', size: 0.9, fill: false }];
    case 'double':
      return [1, INNER].map((size) => ({ shape: 'ellipse', size, fill: false }) as const);
    case 'drag':
      return [{ shape: 'ellipse', size: INNER, fill: true }];
    default:
      return assertNever(kind);
  }
}

/**
 * A ring that grows from where was pressed and fades: one for the main button, two for a double
 * press, a square for the second button, a disc that stays for as long as something is dragged.
 */
export const ring: PointerLookKind<typeof schema> = {
  schema,
  label: 'Ring at presses',
  level: 'below',
  marks({ size, line, time, color }, scene) {
    const { press, scale, strength } = scene;
    if (!press) return [];
    const { kind, since, released } = press;
    const age = (kind === 'drag' ? released : since) / (time * 1000);
    if (age >= 1) return [];
    const grown = kind === 'drag' ? 1 : FIRST + (1 - FIRST) * (1 - (1 - age) ** 3);
    // It stays where was pressed; what is dragged takes it along.
    const spot =
      kind === 'drag' && !released ? scene.tip : scene.before(kind === 'drag' ? released : since);
    return formsOf(kind).map(({ shape, size: share, fill }) => ({
      kind: 'drawing',
      mark: {
        ...{ kind: 'outline', shape, radius: 0 },
        box: around(spot, size * scale * grown * share),
        fill: fill ? color : null,
        stroke: { width: Math.max(1, line * scale), color },
      },
      opacity: strength * (1 - age ** 2) * (fill ? 0.5 : 1),
      blend: 'normal',
    }));
  },
};
