import { LAYOUTS } from '../layout/built-in';
import { newLook, pointerSpan } from '../pointer/model';
import type { Project } from '../project/model';
import { validateProject } from '../project/validate';
import { applyEdit } from './apply';
import { counter, demoProject, frame, SOURCES } from './fixture';
import { mergeProjects } from './merge';
import { prepareEdit, type EditArgs, type EditId } from './registry';

const newId = counter();
const BASE = demoProject(newId);
const lane = (kind: string) => BASE.lanes.find((l) => l.kind === kind)!;
const clip = (kind: string) => lane(kind).clips[0]!;

function after<I extends EditId>(id: I, args: EditArgs<I>, project = BASE): Project {
  return applyEdit(project, prepareEdit(id, args, project, SOURCES, newId).edit).project;
}
const sound = (project: Project) => validateProject(structuredClone(project), SOURCES);

/** Edits of which no two touch the same thing. */
const APART: readonly Project[] = [
  after('set-clip-level', { clipId: clip('voice').id, gain: -6 }),
  after('set-clip-level', { clipId: clip('music').id, gain: -9 }),
  after('change-lane', { laneId: lane('voice').id, change: { locked: true } }),
  after('change-presenter', { change: { size: 0.4 } }),
  after('change-presenter', { change: { corner: 'top-left' } }),
  after('change-canvas', { change: { background: '#112233' } }),
  after('add-marker', { marker: { id: 'm1', time: frame(9), name: 'One', color: '#8e3f66' } }),
  after('add-marker', { marker: { id: 'm2', time: frame(19), name: 'Two', color: '#8e3f66' } }),
  after('remove-span', { id: BASE.callouts[0]!.id }),
  after('change-framing', { id: BASE.framings[1]!.id, change: { pinned: true } }),
  after('set-layout', { start: frame(3), end: frame(30), layout: LAYOUTS.side }),
  after('add-pointer-looks', {
    span: pointerSpan('p1', { start: 0, end: frame(90) }, [newLook('halo')]),
  }),
  after('change-step', { id: BASE.steps[2]!.id, change: { narration: 'Wait for the cone.' } }),
  after('remove-step', { id: BASE.steps[4]!.id }),
  after('change-key', { footageId: 'camera', change: { tolerance: 20 } }),
  after('change-look', { footageId: 'screen', change: { brightness: 0.1 } }),
  after('add-lane', { kind: 'voice' }),
];

test('what two did apart comes together, in whichever order, and is sound', () => {
  APART.forEach((mine, i) =>
    APART.forEach((theirs, k) => {
      if (i === k) return;
      const merged = mergeProjects(BASE, mine, theirs)!;
      expect([i, k, merged === null]).toEqual([i, k, false]);
      expect(sound(merged)).toHaveProperty('project');
      expect(mergeProjects(BASE, theirs, mine)).toEqual(merged);
      // Both are in it: taking one of them as the base leaves the other's change.
      expect(mergeProjects(mine, merged, mine)).toEqual(merged);
      expect(merged).not.toEqual(mine);
      expect(merged).not.toEqual(theirs);
    }),
  );
});

test('with one who did nothing, the other’s state is what there is', () => {
  for (const mine of APART) {
    expect(mergeProjects(BASE, mine, BASE)).toEqual(mine);
    expect(mergeProjects(BASE, BASE, mine)).toEqual(mine);
    expect(mergeProjects(BASE, mine, structuredClone(mine))).toEqual(mine);
  }
});

test.each<[string, Project, Project]>([
  [
    'the level of one clip',
    after('set-clip-level', { clipId: clip('voice').id, gain: -6 }),
    after('set-clip-level', { clipId: clip('voice').id, gain: -7 }),
  ],
  [
    'a clip that one moves and the other removes',
    after('lift-clips', { clipIds: [clip('music').id] }),
    after('move-clip', { clipId: clip('music').id, start: frame(7), laneId: null }),
  ],
  [
    'the size of the presenter',
    after('change-presenter', { change: { size: 0.4 } }),
    after('change-presenter', { change: { size: 0.5 } }),
  ],
  [
    'words of a step',
    after('change-step', { id: BASE.steps[2]!.id, change: { narration: 'Now.' } }),
    after('change-step', { id: BASE.steps[2]!.id, change: { narration: 'Later.' } }),
  ],
  [
    'the order of steps',
    after('move-step', { id: BASE.steps[0]!.id, to: 3 }),
    after('move-step', { id: BASE.steps[4]!.id, to: 0 }),
  ],
  [
    'all that follows a cut',
    after('ripple-delete', { start: frame(10), end: frame(40) }),
    after('ripple-delete', { start: frame(50), end: frame(70) }),
  ],
])('%s is not brought together by guessing', (_what, mine, theirs) => {
  expect(mergeProjects(BASE, mine, theirs)).toBeNull();
  expect(mergeProjects(BASE, theirs, mine)).toBeNull();
});

test('what comes to lie over each other is told by the check of documents', () => {
  const framing = (id: string) =>
    after('add-framing', {
      framing: {
        ...{ id, start: frame(1800), end: frame(1830), rampIn: 0, rampOut: 0 },
        ...{ footageId: 'screen', endRect: null, pinned: true, reason: '' },
        rect: { x: 0, y: 0, width: 960, height: 540 },
      },
    });
  const merged = mergeProjects(BASE, framing('f1'), framing('f2'))!;
  expect(sound(merged)).toHaveProperty('faults');
});
