import { numberSetting } from '../../schema/setting';
import { GROWS, lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('size', {
  factor: numberSetting({
    label: 'Size',
    description: 'Times the usual size of a drawn pointer.',
    unit: '×',
    min: 0.5,
    max: 8,
    step: 0.1,
    fallback: 2,
    usual: [1, 5],
  }),
  ...GROWS,
});

/**
 * A pointer of our own drawing, as sharp at any size; where the recording shows its own, it lies
 * over that, whose tip is the same.
 */
export const size: PointerLookKind<typeof schema> = {
  schema,
  label: 'Size',
  level: 'below',
  paintsOut: true,
  note:
    'Drawn over a pointer that the recording itself shows, which is painted out where other ' +
    'pictures show what lies beneath.',
  treat: ({ factor, grows }, shown, { strength }) => ({
    ...shown,
    size: shown.size === null ? factor : shown.size * (1 + (factor - 1) * strength),
    grows,
    opacity: shown.opacity * (shown.size === null ? strength : 1),
    bare: Math.max(shown.bare, strength),
  }),
};
