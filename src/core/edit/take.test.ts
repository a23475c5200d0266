import { UNPOSED } from '../callout/keyframes';
import { builtInOf, LAYOUTS } from '../layout/built-in';
import fc from 'fast-check';
import type { Project } from '../project/model';
import { placedSteps, projectDuration, stepRange } from '../project/query';
import type { Sources } from '../project/sources';
import { validateProject } from '../project/validate';
import { frameDuration, secondsToTicks } from '../time/ticks';
import { applyEdit } from './apply';
import { EditError } from './error';
import { counter, emptyProject, facts } from './fixture';
import { emptyStep, insertSteps, joinStep, moveStep, splitStep } from './outline';
import { setLayout } from './spans';
import { addLiveData, placeTake, takeSpan, type TakeTrack } from './take';

const RATE = { num: 30, den: 1 };
const FRAME = frameDuration(RATE);
const seconds = secondsToTicks;

const track = (
  name: TakeTrack['name'],
  footageId: string,
  length: number,
  offset = 0,
): TakeTrack => ({
  name,
  footageId,
  offset: seconds(offset),
  duration: seconds(length),
  gain: 0,
});

function outline(count: number): Project {
  const project = emptyProject();
  insertSteps(
    project,
    null,
    Array.from({ length: count }, (_, i) => emptyStep(`s${i}`)),
  );
  return project;
}

const lane = (project: Project, kind: string) => project.lanes.find((l) => l.kind === kind)!.clips;

test('tracks are placed from when all of them run, each from its own time', () => {
  const project = outline(1);
  const placed = placeTake(
    project,
    's0',
    [
      track('screen', 'a', 10, 0.12),
      track('camera', 'b', 10, 0.4),
      track('voice', 'c', 10.1, 0.05),
    ],
    counter(),
  );
  expect(placed.origin).toBe(seconds(0.4));
  expect(lane(project, 'screen')[0]).toMatchObject({
    start: 0,
    source: seconds(0.4) - seconds(0.12),
  });
  expect(lane(project, 'presenter')[0]).toMatchObject({ start: 0, source: 0 });
  expect(lane(project, 'voice')[0]).toMatchObject({
    start: 0,
    source: seconds(0.4) - seconds(0.05),
  });
  const links = project.lanes.flatMap((l) => l.clips.map((c) => c.link));
  expect(new Set(links).size).toBe(1);
  expect(project.steps[0]!.start).toBe(0);
});

test('one track that ended long before the others does not cut them', () => {
  const { end } = takeSpan([
    track('screen', 'a', 10),
    track('camera', 'b', 3),
    track('voice', 'c', 9.8),
  ]);
  expect(end).toBe(seconds(9.8));
});

test('a track that came much later than the others stands where it came', () => {
  const project = outline(1);
  placeTake(project, 's0', [track('screen', 'a', 10), track('voice', 'c', 8, 1.01)], counter());
  expect(lane(project, 'screen')[0]).toMatchObject({ start: 0, source: 0 });
  const [voice] = lane(project, 'voice');
  expect(voice!.start).toBe(31 * FRAME);
  // The same instant of the take, still.
  expect(voice!.source - voice!.start).toBe(-seconds(1.01));
});

test('a step that is recorded later goes between its neighbours, and they keep what they have', () => {
  const project = outline(3);
  const newId = counter();
  placeTake(project, 's0', [track('voice', 'a', 4)], newId);
  placeTake(project, 's2', [track('voice', 'c', 6)], newId);
  placeTake(project, 's1', [track('voice', 'b', 5)], newId);
  expect(lane(project, 'voice').map((c) => [c.footageId, c.start])).toEqual([
    ['a', 0],
    ['b', seconds(4)],
    ['c', seconds(9)],
  ]);
  expect(placedSteps(project).map((s) => s.id)).toEqual(['s0', 's1', 's2']);
});

test('a take done again takes the place of the old one; the voice stays, and the step is as long as what is in it', () => {
  const project = outline(2);
  const newId = counter();
  placeTake(project, 's0', [track('voice', 'v', 4)], newId);
  placeTake(project, 's1', [track('voice', 'w', 4)], newId);
  placeTake(project, 's0', [track('screen', 'x', 9)], newId);
  expect(stepRange(project, 's0')).toEqual({ start: 0, end: seconds(9) });
  project.callouts.push({
    id: 'c',
    start: 0,
    end: seconds(2),
    anchor: { to: 'footage', footageId: 'x' },
    ...UNPOSED,
    kind: 'cover',
    way: 'blur',
    color: '#1e2a32',
    rect: { x: 0, y: 0, width: 9, height: 9 },
    strength: 9,
  });
  placeTake(project, 's0', [track('screen', 'y', 6)], newId);
  expect(lane(project, 'screen').map((c) => c.footageId)).toEqual(['y']);
  expect(lane(project, 'voice').map((c) => [c.footageId, c.start])).toEqual([
    ['v', 0],
    ['w', seconds(6)],
  ]);
  expect(project.callouts).toEqual([]);
});

test('a locked lane refuses, and nothing is changed', () => {
  const project = outline(1);
  project.lanes.find((l) => l.kind === 'voice')!.locked = true;
  expect(() =>
    applyEdit(project, (draft) => void placeTake(draft, 's0', [track('voice', 'a', 2)], counter())),
  ).toThrow(EditError);
  expect(() =>
    applyEdit(
      project,
      (draft) => void placeTake(draft, 's0', [track('screen', 'a', 0.01)], counter()),
    ),
  ).toThrow(EditError);
  expect(lane(project, 'screen')).toEqual([]);
});

test('takes in any order leave a sound project in the outline’s order', () => {
  const lengths = [3, 5.5, 8, 2];
  const footage = Object.fromEntries(
    lengths.flatMap((length, i) => [
      [`v${i}`, facts(`v${i}`, 'voice', length, { kind: 'audio', hasVideo: false })],
      [`x${i}`, facts(`x${i}`, 'screen', length)],
    ]),
  );
  const sources: Sources = { footage, pointers: {} };
  const take = fc.record({
    step: fc.nat(3),
    name: fc.constantFrom<'voice' | 'screen'>('voice', 'screen'),
    length: fc.nat(3),
  });
  fc.assert(
    fc.property(fc.array(take, { maxLength: 14 }), (takes) => {
      const project = outline(4);
      const newId = counter();
      for (const { step, name, length } of takes)
        placeTake(
          project,
          `s${step}`,
          [track(name, `${name === 'voice' ? 'v' : 'x'}${length}`, lengths[length]!)],
          newId,
        );
      expect(validateProject(JSON.parse(JSON.stringify(project)), sources)).toHaveProperty(
        'project',
      );
      const order = placedSteps(project).map((s) => s.id);
      expect(order).toEqual([...order].sort());
      for (const { start } of placedSteps(project)) expect(start % FRAME).toBe(0);
      // Each step has its last take of each kind, at its start.
      for (const s of placedSteps(project))
        for (const name of ['voice', 'screen'] as const) {
          const last = takes.findLast((t) => `s${t.step}` === s.id && t.name === name);
          const clip = lane(project, name).find((c) => c.start === s.start);
          expect(clip?.footageId).toBe(last && `${name === 'voice' ? 'v' : 'x'}${last.length}`);
        }
      expect(projectDuration(project)).toBeLessThanOrEqual(seconds(8) * 4);
    }),
    { numRuns: 150 },
  );
});

test('a take decides the layout of its time only if one was chosen in it', () => {
  const project = outline(1);
  const newId = counter();
  const range = { start: 0, end: seconds(9) };
  setLayout(project, { start: 0, end: seconds(20) }, LAYOUTS.presenter, newId);
  const nothing = { callouts: [], framings: [], layouts: [], markers: [] };
  addLiveData(project, nothing, range, newId);
  expect(project.layouts.map((l) => [builtInOf(l.layout), l.start])).toEqual([['presenter', 0]]);
  addLiveData(
    project,
    {
      ...nothing,
      layouts: [{ id: 'x', start: seconds(3), end: seconds(5), layout: LAYOUTS.screen }],
    },
    range,
    newId,
  );
  expect(project.layouts.map((l) => [builtInOf(l.layout), l.start, l.end])).toEqual([
    ['screen', seconds(3), seconds(5)],
    ['presenter', seconds(9), seconds(20)],
  ]);
});

describe('the outline', () => {
  test('splitting and joining again gives the same words', () => {
    const project = outline(2);
    project.steps[0]!.narration = 'Open the menu. Choose it.';
    splitStep(project, 's0', 14, counter());
    expect(project.steps.map((s) => s.narration)).toEqual(['Open the menu.', 'Choose it.', '']);
    joinStep(project, project.steps[1]!.id);
    expect(project.steps.map((s) => s.narration)).toEqual(['Open the menu.\n\nChoose it.', '']);
    expect(() => splitStep(project, 's0', 0, counter())).toThrow(EditError);
    expect(() => joinStep(project, 's0')).toThrow(EditError);
  });

  test('any moves keep every step once', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(5), fc.integer({ min: -3, max: 9 })), { maxLength: 20 }),
        (moves) => {
          const project = outline(6);
          for (const [which, to] of moves) moveStep(project, `s${which}`, to);
          expect(project.steps.map((s) => s.id).sort()).toEqual([
            's0',
            's1',
            's2',
            's3',
            's4',
            's5',
          ]);
        },
      ),
    );
  });
});
