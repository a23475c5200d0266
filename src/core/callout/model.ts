import { Type, type Static } from '@sinclair/typebox';
import { KINDS } from './kinds';

export type Callout = Static<(typeof KINDS)[keyof typeof KINDS]['schema']>;

/** A callout of any kind, told by its `kind`. */
export const Callout = Type.Unsafe<Callout>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: Object.values(KINDS).map(({ schema }) => schema),
});
