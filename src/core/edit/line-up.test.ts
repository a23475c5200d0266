import { clockOf, clockSpeed, sourceEnd, sourceTime } from '../project/clip-time';
import type { Clip } from '../project/model';
import { findClip } from '../project/query';
import { secondsToTicks, ticksToSeconds } from '../time/ticks';
import { createClip } from '../project/create';
import { counter, emptyProject, SOURCES } from './fixture';
import { inLine, lineUp, stillOf } from './line-up';
import { lineUpTask } from './line-up-task';

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

test('a clock that drifts is made up for throughout', () => {
  const still = clip('a', 'screen', 5, 2, 600);
  const moved = clip('b', 'voice', 0, 7, 600);
  const { by, clock, apart } = inLine(still, moved, { offset: -3, ppm: 100 });
  expect(clock).toBeCloseTo(100, 6);
  expect(apart).toBe(0);
  Object.assign(moved, { start: moved.start + by, speed: clockSpeed(clock!) });
  for (const time of [20, 300, 580]) {
    const [theirs, mine] = [still, moved].map((one) =>
      ticksToSeconds(sourceTime(one, time * SECOND)),
    );
    expect(-3 + mine! * (1 + 100e-6)).toBeCloseTo(theirs!, 4);
  }
  expect(clockOf(moved)).toBe(100);
  // By one that makes up for its clock already, and runs as this one does, it makes up for as much.
  const third = clip('c', 'hall', 0, 7, 600);
  expect(inLine(moved, third, { offset: 0, ppm: 0 }).clock).toBeCloseTo(100, 0);
  // Once it makes up for its clock it can be lined up again.
  expect(inLine(still, moved, { offset: -3, ppm: 100 }).clock).toBeCloseTo(100, 6);
  expect(inLine(still, moved, { offset: -3, ppm: 0 }).clock).toBe(0);
});

test('at another speed they agree in the middle, and it is told how far they part', () => {
  const [still, moved] = ['screen', 'voice'].map((name) => ({
    ...clip(name, name, 0, 0, 300),
    speed: 2,
  })) as [Clip, Clip];
  const { by, clock, apart } = inLine(still, moved, { offset: 0, ppm: 100 });
  moved.start += by;
  expect(clock).toBeNull();
  // In the middle of ten minutes a clock of 100 ppm is 30 ms away.
  expect(between(still, moved, 150)).toBeCloseTo(0.03, 4);
  expect(ticksToSeconds(apart)).toBeCloseTo(0.015, 4);
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
  lineUp(project, [{ clipId: 'sound', by, clock: null }], SOURCES, newId);
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

test('what makes up for its clock stays linked to its own recording, and within it', () => {
  const link = 'together';
  const footage = Object.values(SOURCES.footage)[0]!;
  const whole = Math.floor(ticksToSeconds(footage.duration));
  const { project, newId } = projectWith(
    ['screen', { ...clip('screen', 's', 0, 0, whole), link }],
    ['presenter', { ...clip('face', footage.id, 0, 0, whole), link }],
    ['voice', { ...clip('sound', footage.id, 0, 0, whole), link }],
  );
  project.lanes.find((l) => l.kind === 'voice')!.clips[0]!.duration = footage.duration;
  lineUp(project, [{ clipId: 'face', by: 0, clock: -400 }], SOURCES, newId);
  const [screen, face, sound] = ['screen', 'face', 'sound'].map(
    (id) => findClip(project, id)!.clip,
  );
  expect(face!.link).not.toBeNull();
  expect(face!.link).toBe(sound!.link);
  expect(screen).toMatchObject({ link, speed: 1 });
  expect(clockOf(face!)).toBe(-400);
  expect(sourceEnd(sound!)).toBeLessThanOrEqual(footage.duration);
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
      { clipId: 'early', by: -4 * SECOND, clock: null },
      { clipId: 'late', by: -15 * SECOND, clock: null },
    ],
    SOURCES,
    newId,
  );
  const early = findClip(project, 'early')!.clip;
  expect(early).toMatchObject({ start: 0, source: 3 * SECOND, duration: 7 * SECOND });
  const late = findClip(project, 'late')!;
  expect(late.clip.start).toBe(25 * SECOND);
  expect(late.lane).not.toBe(findClip(project, 'there')!.lane);
  expect(late.lane.kind).toBe('voice');
  const gone = { clipId: 'early', by: -8 * SECOND, clock: null };
  expect(() => lineUp(project, [gone], SOURCES, newId)).toThrow('before');
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

describe('what is compared', () => {
  const sources = {
    ...SOURCES,
    footage: Object.fromEntries(
      [
        ['s', false],
        ['camera', true],
        ['v', true],
      ].map(([id, hasAudio]) => [
        id,
        { ...Object.values(SOURCES.footage)[0]!, id, name: `${String(id)}.mp4`, hasAudio },
      ]),
    ),
  } as typeof SOURCES;

  test('a silent screen goes by the voice of its take, and stays', () => {
    const { project } = projectWith(
      ['screen', { ...clip('screen', 's', 0, 0, 30), link: 'take' }],
      ['voice', { ...clip('voice', 'v', 0, 0, 30), link: 'take' }],
      ['presenter', { ...clip('face', 'camera', 40, 0, 30), link: 'cam' }],
      ['voice', { ...clip('sound', 'camera', 40, 0, 30), link: 'cam' }],
    );
    expect(lineUpTask(project, sources, ['face', 'screen'])).toEqual({
      still: 'voice',
      parts: [{ hears: 'face', clipIds: ['face'] }],
    });
    expect(lineUpTask(project, sources, ['screen', 'voice'])).toMatch(/Select two clips/);
    // A single one is compared with what has a sound of another recording.
    expect(lineUpTask(project, sources, ['sound'])).toEqual({
      still: 'voice',
      parts: [{ hears: 'sound', clipIds: ['sound'] }],
    });
  });

  test('a single clip with nothing beside it can’t be lined up', () => {
    const { project } = projectWith(['voice', clip('voice', 'v', 0, 0, 30)]);
    expect(lineUpTask(project, sources, ['voice'])).toMatch(/Select two clips/);
  });

  test('what has no sound says so', () => {
    const { project } = projectWith(
      ['screen', clip('screen', 's', 0, 0, 30)],
      ['voice', clip('voice', 'v', 0, 0, 30)],
    );
    expect(lineUpTask(project, sources, ['voice', 'screen'])).toMatch(/s.mp4 has no sound/);
  });
});
