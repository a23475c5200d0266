import { fromDecibels } from './levels';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { splitClip } from '../edit/clips';
import { frameStart } from '../time/ticks';
import { setFades, setLevelPoint } from '../edit/levels';
import { muteClips } from '../edit/clips';
import { addToMix, soundSegments, SAMPLE_RATE, silence, tameClipping, type Stereo } from './mix';

const ones = (length: number): Stereo => [
  new Float32Array(length).fill(1),
  new Float32Array(length).fill(1),
];

test('levels in dB', () => {
  expect(fromDecibels(0)).toBe(1);
  expect(fromDecibels(-20)).toBeCloseTo(0.1);
  expect(fromDecibels(6)).toBeCloseTo(1.995, 2);
});

test('sound stands on the sample grid where its clip stands, and a mere split is not heard', () => {
  const project = emptyProject();
  const newId = counter();
  placeFootage(project, SOURCES.footage.camera!, frameStart(30, { num: 30, den: 1 }), newId);
  splitClip(project, project.lanes[0]!.clips[0]!.id, frameStart(300, { num: 30, den: 1 }), newId);
  const [first, second] = soundSegments(project, SOURCES);
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
  const [segment] = soundSegments(project, SOURCES);
  const mix = silence(1000);
  addToMix(mix, 0, segment!, ones(1000), 0);
  expect(mix[0][0]).toBe(0);
  expect(mix[0][999]).toBeCloseTo(fromDecibels(-16));
  project.lanes.find((l) => l.kind === 'music')!.off = true;
  expect(soundSegments(project, SOURCES)).toEqual([]);
});

test('a sum of loud sounds stays below full scale and quiet sound is untouched', () => {
  const mix: Stereo = [Float32Array.from([0.5, 1, 2, -3]), Float32Array.from([0, -0.2, 0.88, 9])];
  tameClipping(mix);
  expect(mix[0][0]).toBe(0.5);
  expect(Math.max(...mix[0], ...mix[1])).toBeLessThanOrEqual(1);
  expect(Math.min(...mix[0])).toBeGreaterThanOrEqual(-1);
  expect(mix[0][2]!).toBeGreaterThan(mix[0][1]!);
});

test('fades and level points are heard where they are, muted and frozen clips are not', () => {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.music!, 0, counter());
  const lane = project.lanes.find((l) => l.kind === 'music')!;
  lane.gain = 0;
  const clip = lane.clips[0]!;
  const frame = (n: number) => frameStart(n, { num: 30, den: 1 });
  setFades(project, clip.id, frame(30), frame(60));
  setLevelPoint(project, clip.id, frame(90), 0, 1);
  setLevelPoint(project, clip.id, frame(120), -20, 1);
  const [segment] = soundSegments(project, SOURCES);
  const heard = (second: number) => {
    const mix = silence(1);
    addToMix(mix, Math.round(second * SAMPLE_RATE), segment!, ones(SAMPLE_RATE * 100), 0);
    return mix[0][0]!;
  };
  expect(heard(0.5)).toBeCloseTo(0.5, 3);
  expect(heard(2)).toBeCloseTo(1, 3);
  expect(heard(3.5)).toBeCloseTo(fromDecibels(-10), 3);
  expect(heard(10)).toBeCloseTo(0.1, 3);
  expect(heard(89)).toBeCloseTo(0.05, 3);
  muteClips(project, [clip.id], true);
  expect(soundSegments(project, SOURCES)).toEqual([]);
  muteClips(project, [clip.id], false);
  clip.speed = 0;
  expect(soundSegments(project, SOURCES)).toEqual([]);
});
