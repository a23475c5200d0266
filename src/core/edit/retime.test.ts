import { UNPOSED } from '../callout/keyframes';
import { clipEnd, sourceEnd, sourceTime } from '../project/clip-time';
import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { secondsToTicks } from '../time/ticks';
import { EditError } from './error';
import { counter, emptyProject, facts, FRAME, frame, SOURCES } from './fixture';
import { placeFootage } from './place';
import { narrationOf, paceToVoice } from './pace';
import { canFollow, freezeAll, freezeOver, setSpeed } from './retime';
import { addSpan } from './spans';

const screenOf = (p: Project) => p.lanes.find((l) => l.kind === 'screen')!;
const voiceOf = (p: Project) => p.lanes.find((l) => l.kind === 'voice')!;

/** A minute of screen with its sound, and a callout in it. */
function screenOnly() {
  const newId = counter();
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, newId);
  addSpan(project, 'callouts', {
    id: 'c',
    start: frame(600),
    end: frame(900),
    anchor: { to: 'footage', footageId: 'screen' },
    ...UNPOSED,
    kind: 'cover',
    way: 'blur',
    color: '#1e2a32',
    rect: { x: 0, y: 0, width: 9, height: 9 },
    strength: 9,
  });
  return { project, newId, clip: screenOf(project).clips[0]! };
}

test('a clip at double speed is half as long, ends with the same footage, and what it shows keeps its callout', () => {
  const { project, newId, clip } = screenOnly();
  setSpeed(project, clip.id, 2, 'stay', FRAME, newId);
  expect(clip.duration).toBe(secondsToTicks(30));
  expect(sourceEnd(clip)).toBe(secondsToTicks(60));
  expect(sourceTime(clip, frame(300))).toBe(frame(600));
  expect(project.callouts[0]).toMatchObject({ start: frame(300), end: frame(450) });
  expect(project.lanes.find((l) => l.kind === 'computer')!.clips[0]).toMatchObject({
    speed: 2,
    duration: secondsToTicks(30),
  });
  setSpeed(project, clip.id, 1, 'stay', FRAME, newId);
  expect(clip).toMatchObject({ duration: secondsToTicks(60), speed: 1 });
  expect(project.callouts[0]).toMatchObject({ start: frame(600), end: frame(900) });
});

test('what follows moves along, or is refused where another recording plays in the time that would go', () => {
  const { project, newId, clip } = screenOnly();
  placeFootage(project, SOURCES.footage.screen!, null, newId);
  const after = screenOf(project).clips[1]!;
  setSpeed(project, clip.id, 4, 'move', FRAME, newId);
  expect(after.start).toBe(secondsToTicks(15));
  placeFootage(project, SOURCES.footage.camera!, secondsToTicks(5), newId);
  expect(canFollow(project, clip.id, 8)).toBe(false);
  expect(() => setSpeed(project, clip.id, 8, 'move', FRAME, newId)).toThrow(/goes on in the time/);
  setSpeed(project, clip.id, 8, 'stay', FRAME, newId);
  expect(after.start).toBe(secondsToTicks(15));
  // Slower again, there is no room without the others moving.
  expect(() => setSpeed(project, clip.id, 1, 'stay', FRAME, newId)).toThrow(EditError);
});

test('a speed at which less than a frame would remain is refused', () => {
  const { project, newId, clip } = screenOnly();
  for (const lane of project.lanes) for (const c of lane.clips) c.duration = frame(3);
  expect(() => setSpeed(project, clip.id, 8, 'stay', FRAME, newId)).toThrow(
    /shorter than one frame/,
  );
  expect(() => setSpeed(project, clip.id, 17, 'stay', FRAME, newId)).toThrow(/between/);
});

test('a frozen frame lies over what follows, or makes everything wait', () => {
  const { project, newId, clip } = screenOnly();
  const id = freezeOver(project, SOURCES, clip.id, frame(300), frame(60), FRAME, newId);
  expect(screenOf(project).clips.map((c) => [c.start, c.duration, c.source, c.speed])).toEqual([
    [0, frame(300), 0, 1],
    [frame(300), frame(60), frame(300), 0],
    [frame(360), frame(1440), frame(360), 1],
  ]);
  expect(screenOf(project).clips[1]!.id).toBe(id);
  freezeAll(project, SOURCES, frame(300), frame(30), FRAME, newId);
  expect(screenOf(project).clips.map((c) => [c.start, c.duration])).toEqual([
    [0, frame(300)],
    [frame(300), frame(30)],
    [frame(330), frame(60)],
    [frame(390), frame(1440)],
  ]);
  expect(() => freezeAll(project, SOURCES, frame(9000), FRAME, FRAME, newId)).toThrow(/no picture/);
  expect(() => setSpeed(project, id, 2, 'stay', FRAME, newId)).toThrow(/frozen/);
});

describe('pace to voice', () => {
  /** A screen of a minute over a voice of so many seconds. */
  function build(seconds: number, pointer = false) {
    const newId = counter();
    const project = emptyProject();
    const sources: Sources = {
      footage: {
        screen: facts('screen', 'screen', 60, { hasAudio: false }),
        words: facts('words', 'voice', seconds, { kind: 'audio', hasVideo: false }),
      },
      // Still for ten seconds, twice; in between something moves all the time.
      pointers: pointer
        ? {
            screen: {
              format: 'vistum-pointer',
              version: 1,
              width: 2560,
              height: 1440,
              samples: Array.from({ length: 600 }, (_, i) => i * 100)
                .filter((t) => !(t > 10_000 && t < 20_000) && !(t > 40_000 && t < 50_000))
                .map((t) => [t, t / 30, 5] as const),
              events: [],
            },
          }
        : {},
    };
    placeFootage(project, sources.footage.screen!, 0, newId);
    placeFootage(project, sources.footage.words!, 0, newId);
    return { project, sources, newId, clip: screenOf(project).clips[0]! };
  }

  test('stretching makes the clip exactly as long as the words, and closes nothing that is still spoken', () => {
    const { project, sources, newId, clip } = build(40);
    expect(narrationOf(project, clip.id)).toEqual({ start: 0, end: secondsToTicks(40) });
    paceToVoice(project, sources, clip.id, 'stretch', FRAME, newId);
    expect(clip.duration).toBe(secondsToTicks(40));
    expect(clip.speed).toBeCloseTo(1.5, 3);
    expect(sourceEnd(clip)).toBeLessThanOrEqual(secondsToTicks(60));
    expect(() => paceToVoice(project, sources, clip.id, 'stretch', FRAME, newId)).toThrow(
      /already/,
    );
  });

  test('cutting stillness takes time out of still stretches only', () => {
    const { project, sources, newId, clip } = build(45, true);
    paceToVoice(project, sources, clip.id, 'cut', FRAME, newId);
    const { clips } = screenOf(project);
    expect(clipEnd(clips.at(-1)!)).toBe(secondsToTicks(45));
    for (let i = 1; i < clips.length; i++) {
      expect(clips[i]!.start).toBe(clipEnd(clips[i - 1]!));
      const [from, to] = [sourceEnd(clips[i - 1]!), clips[i]!.source].map(
        (t) => t / secondsToTicks(1),
      ) as [number, number];
      expect((from >= 10 && to <= 20) || (from >= 40 && to <= 50)).toBe(true);
    }
    expect(() =>
      paceToVoice(project, { ...sources, pointers: {} }, clips[0]!.id, 'cut', FRAME, newId),
    ).toThrow(EditError);
  });

  test('a screen that is too short is held at its end', () => {
    const { project, sources, newId, clip } = build(70);
    expect(() => paceToVoice(project, sources, clip.id, 'cut', FRAME, newId)).toThrow(
      /shorter than its narration/,
    );
    paceToVoice(project, sources, clip.id, 'freeze', FRAME, newId);
    const still = screenOf(project).clips[1]!;
    expect(still).toMatchObject({
      start: secondsToTicks(60),
      duration: secondsToTicks(10),
      speed: 0,
    });
    expect(still.source).toBe(secondsToTicks(60) - FRAME);
    expect(clipEnd(voiceOf(project).clips[0]!)).toBe(clipEnd(still));
  });

  test('without words there is nothing to pace to', () => {
    const { project, sources, newId, clip } = build(40);
    voiceOf(project).clips = [];
    expect(() => paceToVoice(project, sources, clip.id, 'stretch', FRAME, newId)).toThrow(
      /no narration/,
    );
  });
});
