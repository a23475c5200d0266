import { Type } from '@sinclair/typebox';
import fc from 'fast-check';
import { TakeEvent } from '../take/take';
import { checkOf } from './check';
import { isOf } from './check-plain';

const GOOD: readonly TakeEvent[] = [
  { type: 'pointer', t: 1, x: 2, y: 3 },
  { type: 'down', t: 1, button: 0 },
  { type: 'join', t: 2 },
  { type: 'mark', t: 2, name: 'Here' },
  { type: 'layout', t: 2, kind: 'side' },
  {
    type: 'stroke',
    t: 3,
    id: 's',
    drawn: { kind: 'stroke', tool: 'pen', width: 4, color: '#00ff00' },
    points: [
      [0, 1, 2],
      [10, 2, 3],
    ],
  },
  {
    type: 'figure',
    t: 4,
    id: 'f',
    drawn: {
      kind: 'shape',
      shape: 'box',
      from: { x: 0, y: 0 },
      to: { x: 9, y: 9 },
      width: 2,
      color: '#123456',
    },
  },
  { type: 'erase', t: 5, ids: ['s'] },
  { type: 'clock', t: 6, track: 'voice', offset: 0, rate: 1, pieces: 1, dropped: 0 },
];

/** A copy of a value in which one thing, somewhere, is another. */
const spoil = (value: unknown, path: readonly number[], by: unknown): unknown => {
  if (typeof value !== 'object' || value === null || !path.length) return by;
  const keys = Object.keys(value);
  if (!keys.length) return by;
  const key = keys[path[0]! % keys.length]!;
  const copy = structuredClone(value) as Record<string, unknown>;
  if (by === undefined && path.length === 1) delete copy[key];
  else copy[key] = spoil(copy[key], path.slice(1), by);
  return copy;
};

test('says the same as the compiled check, of good values and of spoiled ones', () => {
  const compiled = checkOf(TakeEvent);
  for (const event of GOOD) expect(isOf(TakeEvent, event)).toBe(true);
  // What JSON can't carry is no number for either.
  for (const t of [NaN, Infinity, -Infinity])
    expect([isOf(TakeEvent, { ...GOOD[0], t }), compiled({ ...GOOD[0], t })]).toEqual([
      false,
      { faults: [expect.objectContaining({ path: '/t' })] },
    ]);
  let refused = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...GOOD),
      fc.array(fc.nat(20), { minLength: 1, maxLength: 4 }),
      fc.oneof(fc.anything(), fc.constant(undefined)),
      (event, path, by) => {
        const value = spoil(event, path, by);
        const plain = isOf(TakeEvent, value);
        if (!plain) refused++;
        expect(plain).toBe('value' in compiled(value));
      },
    ),
    { numRuns: 400 },
  );
  expect(refused).toBeGreaterThan(50);
});

test('a schema that it can’t read is an error, not a yes', () => {
  expect(() => isOf(Type.Unsafe({ type: 'string', minLength: 3 }), 'x')).toThrow(/words or of/);
});
