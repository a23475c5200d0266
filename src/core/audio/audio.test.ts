import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { splitClip } from '../edit/clips';
import { frameStart } from '../time/ticks';
import { addToMix, decibelsToGain, planSound, SAMPLE_RATE, silence, tameClipping, type Stereo } from './mix';

const ones = (length: number): Stereo => [new Float32Array(length).fill(1), new Float32Array(length).fill(1)];

test('levels in dB', () => {
  expect(decibelsToGain(0)).toBe(1);
  expect(decibelsToGain(-20)).toBeCloseTo(0.1);
  expect(decibelsToGain(6)).toBeCloseTo(1.995, 2);
});

test('sound stands on the sample grid where its clip stands, and a mere split is not heard', () => {
  const project = emptyProject();
  const newId = counter();
  placeFootage(project, SOURCES.footage.camera!, frameStart(30, { num: 30, den: 1 }), newId);
  splitClip(project, project.lanes[0]!.clips[0]!.id, frameStart(300, { num: 30, den: 1 }), newId);
  const [first, second] = planSound(project, SOURCES);
  expect(first).toMatchObject({ start: SAMPLE_RATE, source: 0, fadeOut: 0 });
  expect(second).toMatchObject({ start: SAMPLE_RATE * 10, source: SAMPLE_RATE * 9, fadeIn: 0 });
  const mix = silence(200);
  addToMix(mix, first!.end - 100, first!, ones(400), first!.end - 300);
  addToMix(mix, first!.end - 100, second!, ones(400), second!.start);
  expect([...mix[0]].every((v) => Math.abs(v - 1) < 1e-6)).toBe(true);
});

test('muted lanes are silent and edges fade', () => {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.music!, 0, counter());
  const [segment] = planSound(project, SOURCES);
  const mix = silence(1000);
  addToMix(mix, 0, segment!, ones(1000), 0);
  expect(mix[0][0]).toBe(0);
  expect(mix[0][999]).toBeCloseTo(decibelsToGain(-16));
  project.lanes.find((l) => l.kind === 'music')!.off = true;
  expect(planSound(project, SOURCES)).toEqual([]);
});

test('a sum of loud sounds stays below full scale and quiet sound is untouched', () => {
  const mix: Stereo = [Float32Array.from([0.5, 1, 2, -3]), Float32Array.from([0, -0.2, 0.88, 9])];
  tameClipping(mix);
  expect(mix[0][0]).toBe(0.5);
  expect(Math.max(...mix[0], ...mix[1])).toBeLessThanOrEqual(1);
  expect(Math.min(...mix[0])).toBeGreaterThanOrEqual(-1);
  expect(mix[0][2]!).toBeGreaterThan(mix[0][1]!);
});
