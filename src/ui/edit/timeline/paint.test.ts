import { createClip } from '@/core/project/create';
import { facts } from '@/core/edit/fixture';
import { PEAKS_PER_SECOND, thumbCount } from '@/core/project/stand-ins';
import { secondsToTicks } from '@/core/time/ticks';
import { paintThumbnails, paintWaveform } from './paint';

const SCALE = 40;
const clip = {
  ...createClip({
    ...{ id: 'c', footageId: 'f', link: null, start: secondsToTicks(3) },
    ...{ duration: secondsToTicks(20), source: secondsToTicks(10) },
  }),
};
const place = { left: -80, top: 2, height: 30, from: 80, to: 600, scale: SCALE };

/** Notes the numbers of each call. */
function canvas(method: 'drawImage' | 'fillRect') {
  const calls: number[][] = [];
  const note = (...numbers: unknown[]) =>
    calls.push(numbers.filter((n): n is number => typeof n === 'number'));
  return { calls, context: { [method]: note } as unknown as CanvasRenderingContext2D };
}

test('each small view shows the picture where it begins, and none lies beyond the clip', () => {
  const footage = facts('f', 'screen', 60);
  const count = thumbCount(60);
  const { calls, context } = canvas('drawImage');
  paintThumbnails(
    context,
    { naturalWidth: count * 100, naturalHeight: 56 } as HTMLImageElement,
    footage,
    clip,
    place,
  );
  expect(calls.length).toBeGreaterThan(5);
  for (const [cutAt, , , , x, , width] of calls as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ][]) {
    const seconds = 10 + (x - place.left) / SCALE;
    expect(Math.round(cutAt / 100)).toBe(Math.floor((seconds / 60) * count + 1e-6));
    expect(x + width).toBeLessThanOrEqual(place.left + place.to + 1e-6);
  }
  expect(calls[0]![4]).toBeLessThanOrEqual(0);
});

test('a waveform is as high as what sounds there, in a column for each pixel in sight', () => {
  const peaks = new Uint8Array(60 * PEAKS_PER_SECOND);
  // Loud from the fourteenth second of the recording on.
  peaks.fill(255, 14 * PEAKS_PER_SECOND);
  const { calls, context } = canvas('fillRect');
  paintWaveform(context, peaks, clip, 0, place);
  expect(calls).toHaveLength(520);
  for (const [x, , , bar] of calls as [number, number, number, number][]) {
    const seconds = 10 + (x - place.left) / SCALE;
    if (Math.abs(seconds - 14) > 0.1) expect(bar).toBe(seconds < 14 ? 1 : 28);
  }
  const quiet = canvas('fillRect');
  paintWaveform(quiet.context, peaks, clip, -12, place);
  expect(quiet.calls.at(-1)![3]).toBeCloseTo(28 * Math.sqrt(10 ** (-12 / 20)), 1);
  const silent = canvas('fillRect');
  paintWaveform(silent.context, peaks, { ...clip, muted: true }, 0, place);
  expect(silent.calls).toEqual([]);
});
