import { lookSchema, type PointerLookKind } from '../look';

const schema = lookSchema('hidden', {});

/** No pointer is drawn; what is drawn at it stays. */
export const hidden: PointerLookKind<typeof schema> = {
  schema,
  label: 'Hidden',
  level: 'below',
  note: 'A pointer that the recording itself shows stays in it.',
  treat: (_look, shown, { strength }) =>
    strength < 1 ? { ...shown, opacity: shown.opacity * (1 - strength) } : { ...shown, size: null },
};
