import { lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('hidden', {});

/**
 * No pointer is drawn, and one that the recording shows is painted out; what is drawn at it stays.
 */
export const hidden: PointerLookKind<typeof schema> = {
  schema,
  label: 'Hidden',
  level: 'below',
  paintsOut: true,
  note:
    'A pointer that the recording itself shows is painted out where other pictures show what lies ' +
    'beneath.',
  treat: (_look, shown, { strength }) => ({
    ...shown,
    bare: Math.max(shown.bare, strength),
    ...(strength < 1 ? { opacity: shown.opacity * (1 - strength) } : { size: null }),
  }),
};
