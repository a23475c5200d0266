import { sourceTime } from '../project/clip-time';
import type { Clip } from '../project/model';
import { findClip } from '../project/query';
import { secondsToTicks, ticksToSeconds } from '../time/ticks';
import { createClip } from '../project/create';
import { counter, emptyProject } from './fixture';
import { inLine, lineUp, stillOf } from './line-up';

const SECOND = secondsToTicks(1);
const clip = (id: string, footageId: string, start: number, source: number, length: number) =>
  createClip({
    ...{ id, footageId, link: null },
    start: start * SECOND,
    ...{ source: Math.round(source * SECOND), duration: length * SECOND },
  });

/** When a moved clip shows what its recording heard as the other's had `ms` of its own. */
function between(still: Clip, moved: Clip, time: number) {
  return (
    ticksToSeconds(sourceTime(still, time * SECOND)) -
    ticksToSeconds(sourceTime(moved, time * SECOND))
  );
}

test('two clips show the same instant wherever they were cut and stood', () => {
  const still = clip('a', 'screen', 10, 3.25, 20);
  const moved = clip('b', 'voice', 40, 7.1, 20);
  const { by, apart } = inLine(still, moved, { offset: 2.5, ppm: 0 });
  moved.start += by;
  expect(between(still, moved, 12)).toBeCloseTo(2.5, 8);
  expect(apart).toBe(0);
});

test('with a clock that drifts they agree in the middle, and it is told how far they part', () => {
  const still = clip('a', 'screen', 0, 0, 600);
  const moved = clip('b', 'voice', 0, 0, 600);
  const { by, apart } = inLine(still, moved, { offset: 0, ppm: 100 });
  moved.start += by;
  // In the middle of ten minutes a clock of 100 ppm is 30 ms away.
  expect(between(still, moved, 300)).toBeCloseTo(0.03, 4);
  expect(ticksToSeconds(apart)).toBeCloseTo(0.03, 4);
});

test('clips of different speed, and frozen ones, are not brought in line', () => {
  const still = clip('a', 'screen', 0, 0, 60);
  for (const speed of [2, 0])
    expect(() =>
      inLine(still, { ...clip('b', 'voice', 0, 0, 60), speed }, { offset: 0, ppm: 0 }),
    ).toThrow('different speed');
});

function projectWith(...clips: readonly (readonly [string, Clip])[]) {
  const newId = counter();
  const project = emptyProject();
  for (const [kind, one] of clips) project.lanes.find((l) => l.kind === kind)!.clips.push(one);
  return { project, newId };
}

test('a clip moves with its own recording and leaves what it is linked to', () => {
  const link = 'together';
  const { project, newId } = projectWith(
    ['screen', { ...clip('screen', 's', 5, 0, 30), link }],
    ['presenter', { ...clip('face', 'camera', 5, 0, 30), link }],
    ['voice', { ...clip('sound', 'camera', 5, 0, 30), link }],
  );
  const by = Math.round(1.0101 * SECOND);
  lineUp(project, [{ clipId: 'sound', by }], newId);
  const [screen, face, sound] = ['screen', 'face', 'sound'].map(
    (id) => findClip(project, id)!.clip,
  );
  expect(screen!.start).toBe(5 * SECOND);
  // On a frame, and in step to the tick all the same.
  const frame = SECOND / 30;
  expect(face!.start % frame).toBe(0);
  expect(face!.start - face!.source).toBe(5 * SECOND + by);
  expect(face).toMatchObject({ start: sound!.start, source: sound!.source });
  expect(face!.duration % frame).toBe(0);
});

test('what would lie before the beginning goes, and what finds no room gets a lane', () => {
  const { project, newId } = projectWith(
    ['voice', clip('early', 'v', 1, 0, 10)],
    ['voice', clip('there', 'w', 20, 0, 10)],
    ['voice', clip('late', 'x', 40, 0, 10)],
  );
  lineUp(
    project,
    [
      { clipId: 'early', by: -4 * SECOND },
      { clipId: 'late', by: -15 * SECOND },
    ],
    newId,
  );
  const early = findClip(project, 'early')!.clip;
  expect(early).toMatchObject({ start: 0, source: 3 * SECOND, duration: 7 * SECOND });
  const late = findClip(project, 'late')!;
  expect(late.clip.start).toBe(25 * SECOND);
  expect(late.lane).not.toBe(findClip(project, 'there')!.lane);
  expect(late.lane.kind).toBe('voice');
  expect(() => lineUp(project, [{ clipId: 'early', by: -8 * SECOND }], newId)).toThrow('before');
});

test('a screen stays where it is, else the clip that begins first', () => {
  const { project } = projectWith(
    ['screen', clip('screen', 's', 9, 0, 5)],
    ['voice', clip('first', 'v', 0, 0, 5)],
    ['music', clip('second', 'm', 1, 0, 5)],
  );
  expect(stillOf(project, ['first', 'screen', 'second'])).toBe('screen');
  expect(stillOf(project, ['second', 'first'])).toBe('first');
  expect(stillOf(project, [])).toBeNull();
});
