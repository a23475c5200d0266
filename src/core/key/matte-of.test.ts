import { DEFAULT_KEY } from '../edit/settings';
import { lacksMatte, matteOf } from './matte-of';

const shot = { start: 0, end: 100 };
const size = { width: 480, height: 270 };
const mattes = {
  camera: [
    { id: 'b', method: 'shot', shot, ...size } as const,
    { id: 'a', method: 'person', shot: null, ...size } as const,
  ],
};
const key = (more: object) => ({ ...DEFAULT_KEY, footageId: 'camera', ...more });

test('a key finds the matte that was made as it asks for', () => {
  expect(matteOf({ mattes }, key({ method: 'person' }))?.id).toBe('a');
  // What was marked before does not matter to one who is found as a person.
  expect(matteOf({ mattes }, key({ method: 'person', shot }))?.id).toBe('a');
  expect(matteOf({ mattes }, key({ method: 'shot', shot: { ...shot } }))?.id).toBe('b');
  expect(matteOf({ mattes }, key({ method: 'shot', shot: { start: 0, end: 90 } }))).toBeNull();
  expect(matteOf({ mattes }, key({ method: 'wall' }))).toBeNull();
  expect(matteOf({ mattes }, key({ method: 'person', footageId: 'constructor' }))).toBeNull();
  expect(matteOf({}, key({ method: 'person' }))).toBeNull();
});

test('a matte is lacking where a key that is on needs one that there is not', () => {
  expect(lacksMatte({ mattes }, key({ method: 'shot' }))).toBe(true);
  expect(lacksMatte({ mattes }, key({ method: 'shot', on: false }))).toBe(false);
  expect(lacksMatte({ mattes }, key({ method: 'person' }))).toBe(false);
  expect(lacksMatte({}, key({ method: 'wall' }))).toBe(false);
});
