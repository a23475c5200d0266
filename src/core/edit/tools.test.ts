import { envelopeAt } from '../audio/envelope';
import { clipEnd, sourceEnd } from '../project/clip-time';
import type { Project } from '../project/model';
import { secondsToTicks } from '../time/ticks';
import { crossingAt } from '../transition/crossing';
import { linkClips, shiftClip, splitClip } from './clips';
import {
  copyClips,
  copyRange,
  footageOf,
  pasteSnippet,
  withFootage,
  type Snippet,
} from './clipboard';
import { counter, demoProject, emptyProject, facts, FRAME, frame, SOURCES } from './fixture';
import { groupClips, groupMembers, ungroup } from './groups';
import { addLane, changeLane, moveLane, removeLane } from './lanes';
import {
  clearLevelPoints,
  detachAudio,
  moveLevelPoint,
  setFades,
  setLevelPoint,
  SILENCE_DB,
  silenceRange,
} from './levels';
import { placeFootage } from './place';
import { liftRange, rippleDeleteRange } from './range';
import { placeRetake } from './retake';
import { closeAllGaps, openJoin, removedAt, rippleDelete, rippleTrim } from './ripple';
import { DEFAULT_TRANSITION, setTransition } from './transitions';
import { rollCut, slideClip, slipClip } from './trim';

const build = () => {
  const newId = counter();
  const project = demoProject(newId);
  const lane = (kind: string) => project.lanes.find((l) => l.kind === kind)!;
  return { newId, project, lane };
};
const times = (p: Project, kind: string) =>
  p.lanes.find((l) => l.kind === kind)!.clips.map((c) => [c.start, clipEnd(c), c.source]);

describe('trims', () => {
  test('a ripple trim inwards takes the time from all lanes; outwards it brings the footage back', () => {
    const { project, lane, newId } = build();
    const { id } = lane('presenter').clips[0]!;
    rippleTrim(project, SOURCES, id, 'start', frame(90), FRAME, newId);
    expect(times(project, 'presenter')).toEqual([[0, frame(1110), frame(90)]]);
    // The screen began at frame 42.
    expect(times(project, 'screen')).toEqual([[0, frame(42 + 1800 - 90), frame(48)]]);
    rippleTrim(project, SOURCES, lane('presenter').clips[0]!.id, 'start', -frame(30), FRAME, newId);
    expect(times(project, 'presenter')[0]).toEqual([0, frame(1140), frame(60)]);
    expect(times(project, 'screen')[0]![0]).toBe(frame(30));
  });

  test('a rolled cut moves, and nothing else does; a slipped clip shows later footage; a slid one pushes its neighbours', () => {
    const { project, lane, newId } = build();
    splitClip(project, lane('screen').clips[0]!.id, frame(300), newId);
    splitClip(project, lane('screen').clips[1]!.id, frame(600), newId);
    const b = lane('screen').clips[1]!;
    rollCut(project, SOURCES, b.id, frame(20), FRAME);
    expect(times(project, 'screen')).toEqual([
      [frame(42), frame(320), 0],
      [frame(320), frame(600), frame(278)],
      [frame(600), frame(1842), frame(558)],
    ]);
    slipClip(project, SOURCES, b.id, frame(10));
    expect(times(project, 'screen')[1]).toEqual([frame(320), frame(600), frame(288)]);
    slideClip(project, SOURCES, b.id, -frame(15), FRAME);
    expect(times(project, 'screen')).toEqual([
      [frame(42), frame(305), 0],
      [frame(305), frame(585), frame(288)],
      [frame(585), frame(1842), frame(543)],
    ]);
    // The linked sound did all of it too.
    expect(times(project, 'computer')).toEqual(times(project, 'screen'));
    expect(() =>
      rollCut(project, SOURCES, lane('presenter').clips[0]!.id, frame(1), FRAME),
    ).toThrow(/no cut/);
  });

  test('one recording of a take set is shifted against the others by frames, and stays linked', () => {
    const { project, lane } = build();
    const [voice] = lane('voice').clips;
    shiftClip(project, voice!.id, frame(2));
    expect(voice!.start - lane('presenter').clips[0]!.start).toBe(frame(2));
    expect(voice!.link).toBe(lane('presenter').clips[0]!.link);
    expect(() => shiftClip(project, voice!.id, -frame(99))).toThrow(/before the tutorial/);
  });

  test('a join tells what is gone and gives it back in part', () => {
    const { project, lane, newId } = build();
    rippleDelete(project, { start: frame(300), end: frame(400) }, newId);
    const { clips } = lane('screen');
    expect(removedAt(clips[0], clips[1]!)).toBe(frame(100));
    openJoin(project, frame(300), frame(40), newId);
    expect(times(project, 'screen').slice(0, 2)).toEqual([
      [frame(42), frame(340), 0],
      [frame(340), frame(1782), frame(358)],
    ]);
    expect(removedAt(lane('screen').clips[0], lane('screen').clips[1]!)).toBe(frame(60));
    expect(() => openJoin(project, frame(10), FRAME, newId)).toThrow(/No footage was taken out/);
  });
});

describe('the range', () => {
  const range = { start: frame(300), end: frame(400) };

  test('lifting leaves the gap on the chosen lanes only', () => {
    const { project, newId } = build();
    liftRange(project, range, ['screen'], newId);
    expect(times(project, 'screen').map(([s, e]) => [s, e])).toEqual([
      [frame(42), frame(300)],
      [frame(400), frame(1842)],
    ]);
    expect(times(project, 'voice')).toHaveLength(1);
    expect(() => liftRange(project, range, ['screen'], newId)).toThrow(/Nothing stands/);
  });

  test('a ripple delete of some lanes is refused while others play there, and done once they are locked', () => {
    const { project, newId } = build();
    expect(() => rippleDeleteRange(project, range, ['screen', 'computer'], newId)).toThrow(
      /Presenter has something/,
    );
    for (const id of ['presenter', 'voice', 'music']) changeLane(project, id, { locked: true });
    rippleDeleteRange(project, range, ['screen', 'computer'], newId);
    expect(times(project, 'screen').at(-1)![1]).toBe(frame(1742));
    expect(times(project, 'presenter')).toHaveLength(1);
  });

  test('all gaps close at once, and are refused where there are none', () => {
    const { project, newId } = build();
    liftRange(project, range, null, newId);
    liftRange(project, { start: frame(700), end: frame(730) }, null, newId);
    closeAllGaps(project, newId);
    expect(times(project, 'screen').at(-1)![1]).toBe(frame(1842 - 130));
    expect(() => closeAllGaps(project, newId)).toThrow(/no gap/);
  });
});

describe('copying', () => {
  test('a stretch of screen is laid over the presenter on a new lane in front, while the voice goes on', () => {
    const { project, newId } = build();
    const snippet = JSON.parse(
      JSON.stringify(copyRange(project, { start: frame(600), end: frame(660) }, ['screen'])),
    ) as Snippet;
    const ids = pasteSnippet(project, SOURCES, snippet, frame(30), 'overwrite', 'front', newId);
    expect(project.lanes[0]).toMatchObject({ kind: 'screen', name: 'Screen 2' });
    expect(project.lanes[0]!.clips).toMatchObject([
      { id: ids[0], start: frame(30), source: frame(558), link: null },
    ]);
    expect(times(project, 'voice')).toHaveLength(1);
  });

  test('inserting makes room; linked parts are linked to each other anew', () => {
    const { project, newId, lane } = build();
    const before = lane('screen').clips[0]!.link;
    pasteSnippet(
      project,
      SOURCES,
      copyClips(project, [lane('screen').clips[0]!.id, lane('computer').clips[0]!.id]),
      0,
      'insert',
      null,
      newId,
    );
    expect(lane('screen').clips[1]!.start).toBe(frame(42 + 1800));
    expect(lane('screen').clips[0]!.link).toBe(lane('computer').clips[0]!.link);
    expect(lane('screen').clips[0]!.link).not.toBe(before);
  });

  test('locked lanes, other kinds of lane and footage that is gone are refused with a sentence', () => {
    const { project, newId, lane } = build();
    const snippet = copyClips(project, [lane('screen').clips[0]!.id]);
    expect(() => pasteSnippet(project, SOURCES, snippet, 0, 'overwrite', 'voice', newId)).toThrow(
      /can’t stand on/,
    );
    const full = { ...project, lanes: Array.from({ length: 64 }, () => lane('screen')) };
    expect(() => pasteSnippet(full, SOURCES, snippet, 0, 'overwrite', 'front', newId)).toThrow(
      /64 lanes/,
    );
    expect(() =>
      pasteSnippet(project, { footage: {}, pointers: {} }, snippet, 0, 'overwrite', null, newId),
    ).toThrow(/no longer in Footage/);
    changeLane(project, 'screen', { locked: true });
    expect(() => pasteSnippet(project, SOURCES, snippet, 0, 'overwrite', null, newId)).toThrow(
      /locked/,
    );
    expect(() => copyClips(project, [])).toThrow(/Select the clips/);
    expect(footageOf(withFootage(snippet, { screen: 'other' }))).toEqual(['other']);
  });
});

describe('lanes and groups', () => {
  test('lanes are added in front of their kind, reordered within their family, and removed but for the last', () => {
    const { project, newId } = build();
    const id = addLane(project, 'screen', newId);
    expect(project.lanes.map((l) => l.name).slice(0, 3)).toEqual([
      'Presenter',
      'Screen 2',
      'Screen',
    ]);
    moveLane(project, id, -1);
    expect(project.lanes[0]!.id).toBe(id);
    expect(() => moveLane(project, id, -1)).toThrow(/in front already/);
    removeLane(project, id);
    expect(() => removeLane(project, 'screen')).toThrow(/only lane of its kind/);
    changeLane(project, 'screen', { locked: true });
    expect(() => changeLane(project, 'screen', { gain: 3 })).toThrow(/locked/);
    changeLane(project, 'screen', { off: true, height: 2 });
    expect(() =>
      addLane(
        { ...project, lanes: Array.from({ length: 64 }, () => project.lanes[0]!) },
        'voice',
        newId,
      ),
    ).toThrow(/64 lanes/);
  });

  test('a group holds clips together by name until it is undone', () => {
    const { project, newId, lane } = build();
    const ids = [lane('presenter').clips[0]!.id, lane('music').clips[0]!.id];
    const group = groupClips(project, ids, 'Opening', newId);
    expect(groupMembers(project, group)).toEqual(ids);
    ungroup(project, group);
    expect(project.groups).toEqual([]);
    expect(() => groupClips(project, [ids[0]!], 'One', newId)).toThrow(/two clips/);
    expect(() => linkClips(project, [ids[0]!], newId)).toThrow(/two clips/);
  });
});

describe('levels', () => {
  test('points stay with the words when the clip is cut, and a silence is silent to its edges', () => {
    const { project, newId, lane } = build();
    const voice = lane('voice').clips[0]!;
    setLevelPoint(project, voice.id, frame(100), -6, FRAME);
    setLevelPoint(project, voice.id, frame(200), -18, FRAME);
    setLevelPoint(project, voice.id, frame(200) + 5, -12, FRAME);
    expect(voice.envelope).toEqual([
      [frame(100), -6],
      [frame(200), -12],
    ]);
    moveLevelPoint(project, voice.id, 0, frame(900), -3);
    expect(voice.envelope[0]![0]).toBe(frame(200) - 1);
    silenceRange(project, { start: frame(300), end: frame(330) }, ['voice']);
    expect(envelopeAt(voice.envelope, frame(300))).toBe(SILENCE_DB);
    expect(envelopeAt(voice.envelope, frame(330))).toBe(SILENCE_DB);
    expect(envelopeAt(voice.envelope, frame(300) - secondsToTicks(0.02))).toBeCloseTo(-12, 5);
    splitClip(project, voice.id, frame(310), newId);
    expect(lane('voice').clips[1]!.envelope).toEqual(lane('voice').clips[0]!.envelope);
    changeLane(project, 'voice', { locked: true });
    expect(() => clearLevelPoints(project, voice.id)).toThrow(/locked/);
    changeLane(project, 'voice', { locked: false });
    clearLevelPoints(project, voice.id);
    expect(lane('voice').clips[0]!.envelope).toEqual([]);
    expect(() => silenceRange(project, { start: frame(9000), end: frame(9001) }, null)).toThrow(
      /no sound/,
    );
  });

  test('fades fit in their clip; sound is freed from its picture, or brought where there was none', () => {
    const { project, newId, lane } = build();
    const voice = lane('voice').clips[0]!;
    setFades(project, voice.id, frame(1000), frame(1000));
    expect(voice.fadeIn + voice.fadeOut).toBe(voice.duration);
    const picture = lane('presenter').clips[0]!;
    detachAudio(project, SOURCES, picture.id, newId);
    expect([picture.link, voice.link]).toEqual([null, null]);
    lane('voice').clips = [];
    detachAudio(project, SOURCES, picture.id, newId);
    expect(lane('voice').clips[0]).toMatchObject({
      footageId: 'camera',
      start: 0,
      duration: picture.duration,
    });
    expect(() => detachAudio(project, SOURCES, lane('voice').clips[0]!.id, newId)).toThrow(
      /sound already/,
    );
  });

  test('words that are recorded again stand in the range; the old ones wait on a muted lane', () => {
    const { project, newId, lane } = build();
    const range = { start: frame(300), end: frame(390) };
    placeRetake(
      project,
      range,
      { footageId: 'music', source: frame(60), available: frame(200) },
      FRAME,
      newId,
    );
    expect(times(project, 'voice')).toEqual([
      [0, frame(300), 0],
      [frame(300), frame(390), frame(60)],
      [frame(390), frame(1200), frame(390)],
    ]);
    const old = project.lanes.find((l) => l.name === 'Old words')!;
    expect(old).toMatchObject({ off: true, kind: 'voice' });
    expect(old.clips).toMatchObject([
      { start: frame(300), duration: frame(90), source: frame(300), footageId: 'camera' },
    ]);
    // Again, with a microphone that began late: the words stand where they were said.
    placeRetake(
      project,
      range,
      { footageId: 'music', source: -frame(10), available: frame(40) },
      FRAME,
      newId,
    );
    expect(lane('voice').clips[1]).toMatchObject({
      start: frame(310),
      duration: frame(40),
      source: 0,
    });
    expect(project.lanes.filter((l) => l.name.startsWith('Old words'))).toHaveLength(2);
    expect(() =>
      placeRetake(
        project,
        range,
        { footageId: 'music', source: frame(60), available: frame(60) },
        FRAME,
        newId,
      ),
    ).toThrow(/Nothing was recorded/);
  });
});

describe('transitions', () => {
  const cut = () => {
    const made = build();
    rippleDelete(made.project, { start: frame(300), end: frame(400) }, made.newId);
    return { ...made, clip: made.lane('screen').clips[1]! };
  };

  test('a dissolve lies half on each side of the cut and shows both clips beyond it', () => {
    const { project, lane, clip } = cut();
    setTransition(
      project,
      SOURCES,
      clip.id,
      'start',
      { ...DEFAULT_TRANSITION, duration: frame(20) },
      FRAME,
    );
    expect(crossingAt(lane('screen'), frame(289), SOURCES)).toMatchObject({ transition: null });
    expect(crossingAt(lane('screen'), frame(290), SOURCES)).toMatchObject({
      amount: 0,
      to: { id: clip.id },
    });
    expect(crossingAt(lane('screen'), frame(300), SOURCES)).toMatchObject({ amount: 0.5 });
    expect(crossingAt(lane('screen'), frame(305), SOURCES)!.amount).toBeCloseTo(0.75);
    expect(crossingAt(lane('screen'), frame(310), SOURCES)).toMatchObject({
      transition: null,
      to: { id: clip.id },
    });
  });

  test('footage that is missing beyond the cut shortens the transition, or is named where there is none', () => {
    const { project, lane } = cut();
    const a = lane('screen').clips[0]!;
    const b = lane('screen').clips[1]!;
    b.source = frame(4);
    const length = setTransition(
      project,
      SOURCES,
      b.id,
      'start',
      { ...DEFAULT_TRANSITION, duration: frame(60) },
      FRAME,
    );
    expect(length).toBe(frame(8));
    b.source = 0;
    expect(() => setTransition(project, SOURCES, a.id, 'end', DEFAULT_TRANSITION, FRAME)).toThrow(
      /too little footage.*0\.00 s before it/,
    );
    expect(
      setTransition(
        project,
        SOURCES,
        b.id,
        'start',
        { ...DEFAULT_TRANSITION, kind: 'fade', duration: frame(60) },
        FRAME,
      ),
    ).toBe(frame(60));
  });

  test('at a free end a clip goes by itself; what was a cut is a free end when the neighbour is gone', () => {
    const { project, lane, clip } = cut();
    setTransition(
      project,
      SOURCES,
      clip.id,
      'end',
      { ...DEFAULT_TRANSITION, duration: frame(30) },
      FRAME,
    );
    const end = clipEnd(clip);
    expect(crossingAt(lane('screen'), end - frame(15), SOURCES)).toMatchObject({
      from: { id: clip.id },
      to: null,
      amount: 0.5,
    });
    setTransition(
      project,
      SOURCES,
      clip.id,
      'start',
      { ...DEFAULT_TRANSITION, duration: frame(20) },
      FRAME,
    );
    lane('screen').clips.shift();
    expect(crossingAt(lane('screen'), clip.start + frame(5), SOURCES)).toMatchObject({
      from: null,
      amount: 0.25,
    });
    expect(setTransition(project, SOURCES, clip.id, 'start', null, FRAME)).toBe(0);
    expect(clip.transitionIn).toBeNull();
  });
});

describe('placing', () => {
  const still = facts('still', 'still', 0, {
    kind: 'image',
    duration: 0,
    hasAudio: false,
    frameRate: null,
  });

  test('a part, a chosen length of a still, and where something stands already', () => {
    const newId = counter();
    const project = emptyProject();
    const screen = facts('screen', 'screen', 60, { hasAudio: false });
    placeFootage(project, screen, 0, newId, { part: { from: frame(100), to: frame(400) } });
    const lane = project.lanes.find((l) => l.kind === 'screen')!;
    expect([lane.clips[0]!.source, lane.clips[0]!.duration]).toEqual([frame(100), frame(300)]);
    expect(() => placeFootage(project, still, frame(100), newId)).toThrow(/no room/);
    placeFootage(project, still, frame(100), newId, {
      mode: 'overwrite',
      part: { from: 0, to: frame(50) },
    });
    expect(lane.clips.map((c) => [c.footageId, c.start, clipEnd(c)])).toEqual([
      ['screen', 0, frame(100)],
      ['still', frame(100), frame(150)],
      ['screen', frame(150), frame(300)],
    ]);
    placeFootage(project, still, frame(100), newId, {
      mode: 'insert',
      part: { from: 0, to: frame(30) },
    });
    expect(lane.clips.map((c) => c.start)).toEqual([0, frame(100), frame(130), frame(180)]);
    expect(sourceEnd(lane.clips.at(-1)!)).toBe(frame(400));
    const other = addLane(project, 'screen', newId);
    placeFootage(project, still, frame(100), newId, { laneId: other });
    expect(project.lanes.find((l) => l.id === other)!.clips).toHaveLength(1);
  });
});
