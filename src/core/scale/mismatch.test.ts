import { facts } from '../edit/fixture';
import { rateFromNumber } from '../time/ticks';
import { findMismatches, shapeName } from './mismatch';

const canvas = {
  width: 1920,
  height: 1080,
  frameRate: rateFromNumber(30),
  background: '#000000',
  crisp: true,
};
const kinds = (more: object, variableRate = false) =>
  findMismatches({ ...facts('a', 'screen', 9), ...more, variableRate }, canvas).map((m) => m.kind);

test('a recording of the project’s shape and rate, and larger, needs no word', () => {
  expect(kinds({})).toEqual([]);
  expect(kinds({ width: 1920, height: 1080, frameRate: rateFromNumber(30) })).toEqual([]);
});

test('another rate, a varying one, another shape and a small size are each told with what would help', () => {
  expect(kinds({ frameRate: rateFromNumber(25) })).toEqual(['rate']);
  expect(kinds({ frameRate: rateFromNumber(25) }, true)).toEqual(['variable']);
  // Each picture twice, or each as often as any other, is even.
  expect(kinds({ frameRate: rateFromNumber(15) })).toEqual([]);
  expect(kinds({ frameRate: rateFromNumber(60) })).toEqual(['rate']);
  expect(kinds({ width: 1600, height: 1200 })).toEqual(['shape']);
  expect(kinds({ width: 1280, height: 720 })).toEqual(['small']);
  expect(kinds({ width: 800, height: 600, frameRate: rateFromNumber(60) })).toEqual([
    'rate',
    'shape',
    'small',
  ]);
  const [small] = findMismatches(
    { ...facts('a', 'screen', 9, { width: 1279, height: 719 }), variableRate: false },
    canvas,
  );
  expect(small!.remedies).toEqual([
    { label: 'Make the project 1280×720 px', kind: 'size', width: 1280, height: 720 },
  ]);
  expect(small!.text).toContain('1.50×');
});

test('only rates that films and screens have are offered to a project', () => {
  const remedies = (rate: number) =>
    findMismatches(
      { ...facts('a', 'screen', 9, { frameRate: rateFromNumber(rate) }), variableRate: false },
      canvas,
    ).flatMap((m) => m.remedies);
  expect(remedies(26.95)).toEqual([]);
  expect(remedies(25.02)).toEqual([
    { label: 'Use 25 fps for the project', kind: 'rate', frameRate: { num: 25, den: 1 } },
  ]);
});

test('a presenter leaves no bars, but may be soft or cut when alone; sound has neither', () => {
  expect(kinds({ role: 'presenter', width: 1280, height: 720 })).toEqual([]);
  expect(kinds({ role: 'presenter', width: 640, height: 480 })).toEqual(['small']);
  expect(kinds({ role: 'presenter', width: 1080, height: 1920 })).toEqual(['shape', 'small']);
  expect(kinds({ hasVideo: false, width: 0, height: 0, frameRate: null })).toEqual([]);
});

test('shapes by their usual names', () => {
  expect([
    shapeName(2560, 1440),
    shapeName(640, 480),
    shapeName(1080, 1920),
    shapeName(1000, 540),
  ]).toEqual(['16:9', '4:3', '9:16', '1.85:1']);
});
