import fc from 'fast-check';
import { LEAST_SIDE, MOST_SIDE, evenSize } from '../scale/export-size';
import { secondsToTicks } from '../time/ticks';
import {
  chooseFormat,
  choosePreset,
  exportRequest,
  suitedChoice,
  typedRange,
} from './export-choice';
import { FORMATS } from './export-formats';
import { presetsFor } from './export-presets';

const canvas = { width: 1920, height: 1080, frameRate: { num: 30, den: 1 } };
const format = fc.constantFrom(...FORMATS);

test('what suits the target is chosen at first, and the project’s own where none fits', () => {
  expect(suitedChoice(canvas, 'deck')).toMatchObject({
    format: 'mp4',
    size: { width: 1280, height: 720 },
    quality: 'small',
  });
  expect(suitedChoice({ ...canvas, width: 1000, height: 700 }, 'deck')).toMatchObject({
    size: { width: 1000, height: 700 },
    frameRate: canvas.frameRate,
    quality: 'good',
  });
});

test('whatever formats were tried, coming back from a GIF leaves the project’s size and rate', () => {
  fc.assert(
    fc.property(fc.array(format, { maxLength: 6 }), (tried) => {
      const last = tried.reduce(
        (choice, next) => chooseFormat(choice, next, canvas),
        suitedChoice(canvas, 'web'),
      );
      const back = chooseFormat(chooseFormat(last, 'gif', canvas), 'mp4', canvas);
      expect(back).toMatchObject({
        format: 'mp4',
        size: { width: 1920, height: 1080 },
        frameRate: canvas.frameRate,
      });
    }),
  );
  const small = choosePreset(
    suitedChoice(canvas, 'web'),
    presetsFor(canvas).find((p) => p.id === 'deck')!,
  );
  expect(chooseFormat(small, 'webm', canvas).size).toEqual({ width: 1280, height: 720 });
});

test('a preset keeps what it says nothing of', () => {
  const own = {
    ...chooseFormat(suitedChoice(canvas, 'web'), 'gif', canvas),
    calm: true,
    bitRate: 3,
  };
  const [preset] = presetsFor(canvas);
  expect(choosePreset(own, preset!)).toMatchObject({
    format: 'mp4',
    calm: true,
    bitRate: 3,
    size: preset!.size,
  });
});

test('a bit rate is asked for only where it was chosen and the format can be held to one', () => {
  fc.assert(
    fc.property(format, fc.constantFrom('small', 'good', 'high', 'rate'), (name, quality) => {
      const request = exportRequest(
        { ...chooseFormat(suitedChoice(canvas, 'web'), name, canvas), quality },
        null,
      );
      const moving = ['mp4', 'mov', 'webm', 'av1'].includes(name);
      expect(request.bitRate).toBe(quality === 'rate' && moving ? 8 : null);
      expect(request.quality).toBe(quality === 'rate' ? 'good' : quality);
      expect(request).toMatchObject({ format: name, range: null });
    }),
  );
});

describe('a range that was typed', () => {
  const at = { playhead: secondsToTicks(12), length: secondsToTicks(60), still: false };
  const read = (from: string, to: string, more = {}) =>
    typedRange({ from, to }, canvas.frameRate, { ...at, ...more });

  test('is all of it when nothing was, and open ends are the timeline’s', () => {
    expect(read('', ' ')).toBeNull();
    expect(read('0:20', '')).toEqual({ start: 20, end: 60 });
    expect(read('', '1:30.5')).toEqual({ start: 0, end: 90.5 });
    expect(read('0:05', '0:07,5')).toEqual({ start: 5, end: 7.5 });
  });

  test('of a still is the playhead or what was typed, whatever stands as its end', () => {
    expect(read('', 'nonsense', { still: true })).toEqual({ start: 12, end: 60 });
    expect(read('0:30', '0:10', { still: true })).toEqual({ start: 30, end: 60 });
  });

  test('that can’t be meant is answered with what to do', () => {
    for (const [from, to] of [
      ['soon', ''],
      ['', '-3'],
      ['1:2:3:4:5', ''],
    ] as const)
      expect(read(from, to)).toMatch(/^Type the range as times/);
    expect(read('0:20', '0:20')).toMatch(/ends before it starts/);
    expect(read('2:00', '')).toMatch(/starts after the end/);
    expect(read('2:00', '', { still: true })).toMatch(/starts after the end/);
  });
});

test('any size that can be asked for is even, within what can be exported, and nearly of the project’s shape', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 64, max: 4000 }),
      fc.double({ min: 0.3, max: 3, noNaN: true }),
      fc.double({ min: 0.001, max: 100, noNaN: true }),
      (width, shape, scale) => {
        const own = { width: width * 2, height: Math.max(32, Math.round(width * shape)) * 2 };
        const size = evenSize(own, scale);
        for (const side of [size.width, size.height]) {
          expect(side % 2).toBe(0);
          expect(side).toBeGreaterThanOrEqual(LEAST_SIDE);
          expect(side).toBeLessThanOrEqual(MOST_SIDE);
        }
        // Rounding to even pixels moves a side by one at most.
        if (Math.min(size.width, size.height) > LEAST_SIDE)
          expect(Math.abs(size.width / own.width - size.height / own.height)).toBeLessThan(
            1.5 / own.width + 1.5 / own.height,
          );
      },
    ),
  );
});
