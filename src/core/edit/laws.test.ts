import fc from 'fast-check';
import { clipEnd, clockOf, sourceEnd, sourceTime } from '../project/clip-time';
import type { Clip, Project } from '../project/model';
import { placedSteps } from '../project/query';
import { validateChanged, validateProject } from '../project/validate';
import { checkOf } from '../schema/check';
import { applyEdit } from './apply';
import { EditError } from './error';
import { counter, demoProject, frame, SOURCES } from './fixture';
import { changeLane } from './lanes';
import { editKind, prepareEdit, type EditId } from './registry';
import { openJoin, rippleDelete } from './ripple';
import { callOf, IDS, run, RUNS, step, steps, withStill } from './testing';

test('every document stays sound: ordered, without overlap, within its footage', () => {
  fc.assert(
    fc.property(steps, (list) => {
      const newId = counter();
      run(list, withStill(newId), newId, (before, after, s) => {
        const checked = validateProject(JSON.parse(JSON.stringify(after.project)), SOURCES);
        // What is only checked where it changed is found to be the same.
        expect('project' in validateChanged(before.project, after.project, SOURCES)).toBe(true);
        expect({ after: s.name, faults: 'faults' in checked ? checked.faults : [] }).toEqual({
          after: s.name,
          faults: [],
        });
      });
    }),
    RUNS,
  );
});

test('every edit is met by the random sequences and done at least once', () => {
  const done = new Set<string>();
  fc.assert(
    fc.property(fc.array(step, { minLength: 40, maxLength: 80 }), (list) => {
      const newId = counter();
      run(list, withStill(newId), newId, (_before, _after, { name }) => done.add(name));
    }),
    { numRuns: 250, seed: 7 },
  );
  // Without a pointer track there is nothing to plan from; a clip has its pace only beside a voice.
  const rare = new Set<string>(['plan-framings', 'pace-to-voice']);
  expect(IDS.filter((name) => !done.has(name) && !rare.has(name))).toEqual([]);
});

/** The check of each edit's arguments, compiled once. */
const CHECKS = Object.fromEntries(IDS.map((id) => [id, checkOf(editKind(id).args)])) as Record<
  EditId,
  ReturnType<typeof checkOf>
>;

test('what the random edits are given is what the command line would take', () => {
  fc.assert(
    fc.property(step, (s) => {
      const newId = counter();
      let args: unknown;
      try {
        args = JSON.parse(JSON.stringify(callOf(s, withStill(newId), newId)));
      } catch (error) {
        if (error instanceof EditError) return;
        throw error;
      }
      expect({ edit: s.name, ...CHECKS[s.name](args) }).toEqual({
        edit: s.name,
        value: args,
      });
    }),
    { numRuns: 400 },
  );
});

test('every step of the history has a name that fits a line', () => {
  const newId = counter();
  const project = withStill(newId);
  for (const name of IDS) {
    const place = { which: 1, at: 500, length: 40 };
    const { label } = prepareEdit(
      name,
      callOf({ name, place }, project, newId),
      project,
      SOURCES,
      newId,
    );
    expect([name, label.length > 3 && label.length < 40, label]).toEqual([name, true, label]);
  }
});

/**
 * Footage time less the clip's, as it was recorded: the same for all parts of a take set while they
 * are in step.
 */
const offset = (clip: Clip, at: number) => sourceTime(clip, at) - at * clip.speed;

test('linked recordings stay in step to the tick', () => {
  // Edits whose purpose is to change what is linked, or to move one against the other, are left
  // out.
  const apart = new Set<EditId>([
    ...(['shift-clip', 'line-up-clips', 'link-clips', 'pace-to-voice', 'place-take'] as const),
  ]);
  fc.assert(
    fc.property(steps, (list) => {
      const newId = counter();
      const { project } = run(
        list.filter((s) => !apart.has(s.name)),
        withStill(newId),
        newId,
      );
      const offsets = new Map<string, number>();
      for (const lane of project.lanes)
        for (const clip of lane.clips) {
          if (!clip.link) continue;
          const mine = offset(clip, clip.start);
          expect(Math.abs((offsets.get(clip.link) ?? mine) - mine)).toBeLessThan(1);
          offsets.set(clip.link, mine);
        }
    }),
    RUNS,
  );
});

test('a locked lane never changes', () => {
  fc.assert(
    fc.property(steps, fc.nat(4), (list, index) => {
      const newId = counter();
      const start = withStill(newId);
      const { id } = start.lanes[index]!;
      changeLane(start, id, { locked: true });
      const { solo: _, ...kept } = start.lanes[index]!;
      const { solo: __, ...after } = run(list, start, newId).project.lanes.find(
        (l) => l.id === id,
      )!;
      expect(JSON.stringify(after)).toBe(JSON.stringify(kept));
    }),
    RUNS,
  );
});

test('a ripple delete keeps the distance between any two things after it, and total footage is what it was', () => {
  fc.assert(
    fc.property(steps, fc.nat(1500), fc.integer({ min: 1, max: 400 }), (list, at, length) => {
      const newId = counter();
      const before = run(list, withStill(newId), newId).project;
      const range = { start: frame(at), end: frame(at + length) };
      const { project: after } = applyEdit(before, (draft) => rippleDelete(draft, range, newId));
      const things = (p: Project) => [
        ...p.callouts,
        ...p.framings,
        ...p.lanes.flatMap((l) => l.clips),
        ...placedSteps(p),
      ];
      const starts = new Map(things(after).map((t) => [t.id, t.start]));
      for (const thing of things(before)) {
        if (thing.start < range.end) continue;
        expect(starts.get(thing.id)).toBe(thing.start - (range.end - range.start));
      }
      // What is kept and what the range held make up what there was, in footage time.
      const used = (p: Project) =>
        p.lanes.flatMap((l) => l.clips).reduce((sum, c) => sum + sourceEnd(c) - c.source, 0);
      const removed = before.lanes
        .flatMap((l) => l.clips)
        .reduce((sum, c) => {
          const [from, to] = [Math.max(c.start, range.start), Math.min(clipEnd(c), range.end)];
          return from < to ? sum + sourceTime(c, to) - sourceTime(c, from) : sum;
        }, 0);
      // A clip of another clock, cut, has ends that are rounded to whole ticks once more.
      const cuts = before.lanes.flatMap((l) => l.clips).filter((c) => clockOf(c) !== null).length;
      expect(Math.abs(used(after) + removed - used(before))).toBeLessThanOrEqual(2 * cuts);
    }),
    RUNS,
  );
});

test('a join that was pulled open brings back exactly what a ripple delete took', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 60, max: 900 }),
      fc.integer({ min: 1, max: 200 }),
      (at, length) => {
        const newId = counter();
        const first = demoProject(newId);
        // Music does not open with the rest.
        first.lanes = first.lanes.filter((l) => l.kind !== 'music');
        const { project: cut } = applyEdit(first, (draft) =>
          rippleDelete(draft, { start: frame(at), end: frame(at + length) }, newId),
        );
        const { project: open } = applyEdit(cut, (draft) =>
          openJoin(draft, frame(at), Infinity, newId),
        );
        const shown = (p: Project) =>
          p.lanes.flatMap((l) =>
            l.clips.map((c) => [l.id, offset(c, c.start), clipEnd(c)] as const),
          );
        for (const [lane, where, end] of shown(first)) {
          const parts = shown(open).filter(([l]) => l === lane);
          expect(parts.every(([, w]) => w === where)).toBe(true);
          expect(parts.at(-1)![2]).toBe(end);
        }
      },
    ),
    RUNS,
  );
});
