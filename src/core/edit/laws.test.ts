import { LAYOUTS } from '../layout/built-in';
import fc from 'fast-check';
import { clipEnd, sourceEnd, sourceTime } from '../project/clip-time';
import type { Clip, Project } from '../project/model';
import { placedSteps } from '../project/query';
import { validateProject } from '../project/validate';
import type { Edit } from './apply';
import { applyEdit } from './apply';
import {
  liftClips,
  linkClips,
  moveClip,
  moveClips,
  muteClips,
  setClipGain,
  shiftClip,
  splitAll,
  splitClip,
  trimClip,
  unlinkClip,
} from './clips';
import { copyClips, copyRange, pasteSnippet } from './clipboard';
import { EditError } from './error';
import { counter, demoProject, FRAME, frame, SOURCES } from './fixture';
import { groupClips, ungroup } from './groups';
import { historyFits, readHistory } from './check-history';
import {
  doEdit,
  EMPTY_HISTORY,
  goToStep,
  redo,
  undo,
  type History,
  type Versioned,
} from './history';
import { addLane, changeLane, moveLane, removeLane } from './lanes';
import { detachAudio, setFades, setLevelPoint, silenceRange } from './levels';
import { addMarker } from './markers';
import { placeFootage } from './place';
import { liftRange, rippleDeleteRange } from './range';
import { PACE_WAYS, paceToVoice } from './pace';
import { freezeAll, freezeOver, setSpeed } from './retime';
import {
  closeAllGaps,
  closeGap,
  openJoin,
  rippleDelete,
  rippleDeleteClips,
  rippleTrim,
} from './ripple';
import { changeKey, changePresenter } from './settings';
import { removeSpan, setLayout, timeSpan } from './spans';
import { DEFAULT_TRANSITION, setTransition } from './transitions';
import { rollCut, slideClip, slipClip } from './trim';

const clipIds = (p: Project) => p.lanes.flatMap((lane) => lane.clips.map((c) => c.id));

/** A random edit: its name says what is done, the numbers where. */
const numbers = fc.record({
  which: fc.nat(60),
  at: fc.nat(1900),
  length: fc.integer({ min: 1, max: 400 }),
});
type Numbers = typeof numbers extends fc.Arbitrary<infer S> ? S : never;

interface Place extends Numbers {
  readonly id: string;
  readonly laneId: string;
  readonly newId: () => string;
}

const speeds = [0.1, 0.5, 0.75, 1, 1.25, 1.337, 2, 3, 16];

/** The demo with a still behind its screen, which has no length of its own. */
function withStill(newId: () => string): Project {
  const project = demoProject(newId);
  placeFootage(project, SOURCES.footage.still!, frame(1900), newId);
  return project;
}

/** Every edit that there is, on a place that the numbers choose. */
const EDITS: Record<string, (draft: Project, place: Place) => unknown> = {
  split: (p, { id, at, newId }) => splitClip(p, id, frame(at), newId),
  splitAll: (p, { at, newId }) => splitAll(p, frame(at), newId),
  trim: (p, { id, which, at }) =>
    trimClip(p, SOURCES, id, which % 2 ? 'start' : 'end', frame(at), FRAME),
  rippleTrim: (p, { id, which, at, newId }) =>
    rippleTrim(p, SOURCES, id, which % 2 ? 'start' : 'end', frame(at), FRAME, newId),
  roll: (p, { id, length, which }) =>
    rollCut(p, SOURCES, id, frame(which % 2 ? length : -length), FRAME),
  slip: (p, { id, length, which }) => slipClip(p, SOURCES, id, frame(which % 2 ? length : -length)),
  slide: (p, { id, length, which }) =>
    slideClip(p, SOURCES, id, frame(which % 2 ? length : -length), FRAME),
  move: (p, { id, at, laneId }) => moveClip(p, id, frame(at), at % 2 ? laneId : undefined),
  moveMany: (p, { id, length, which, newId }) => {
    void newId;
    const ids = clipIds(p);
    moveClips(p, [id, ids[(which * 7) % ids.length]!], frame(length - 200));
  },
  shift: (p, { id, which }) => {
    unlinkClip(p, id);
    shiftClip(p, id, frame(which - 30));
  },
  lift: (p, { id }) => liftClips(p, [id]),
  rippleDelete: (p, { at, length, newId }) =>
    rippleDelete(p, { start: frame(at), end: frame(at + length) }, newId),
  rippleDeleteClips: (p, { id, newId }) => rippleDeleteClips(p, [id], newId),
  rippleDeleteRange: (p, { at, length, laneId, newId }) =>
    rippleDeleteRange(p, { start: frame(at), end: frame(at + length) }, [laneId], newId),
  liftRange: (p, { at, length, laneId, newId }) =>
    liftRange(p, { start: frame(at), end: frame(at + length) }, at % 2 ? [laneId] : null, newId),
  closeGap: (p, { at, laneId, newId }) => closeGap(p, laneId, frame(at), newId),
  closeAllGaps: (p, { newId }) => closeAllGaps(p, newId),
  openJoin: (p, { id, length, newId }) =>
    openJoin(
      p,
      p.lanes.flatMap((l) => l.clips).find((c) => c.id === id)?.start ?? 0,
      frame(length),
      newId,
    ),
  copyClips: (p, { id, at, laneId, which, newId }) =>
    pasteSnippet(
      p,
      SOURCES,
      copyClips(p, [id]),
      frame(at),
      which % 2 ? 'insert' : 'overwrite',
      which % 3 ? laneId : 'front',
      newId,
    ),
  copyRange: (p, { at, length, which, newId }) =>
    pasteSnippet(
      p,
      SOURCES,
      copyRange(p, { start: frame(at), end: frame(at + length) }, null),
      frame(at + which),
      which % 2 ? 'insert' : 'overwrite',
      null,
      newId,
    ),
  speed: (p, { id, which, newId }) =>
    setSpeed(p, id, speeds[which % speeds.length]!, which % 2 ? 'move' : 'stay', FRAME, newId),
  freezeAll: (p, { at, length, newId }) =>
    freezeAll(p, SOURCES, frame(at), frame(length), FRAME, newId),
  freezeOver: (p, { id, at, length, newId }) =>
    freezeOver(p, SOURCES, id, frame(at), frame(length), FRAME, newId),
  pace: (p, { id, which, newId }) => {
    unlinkClip(p, id);
    paceToVoice(p, SOURCES, id, PACE_WAYS[which % 3]!, FRAME, newId);
  },
  transition: (p, { id, which, length }) =>
    setTransition(
      p,
      SOURCES,
      id,
      which % 2 ? 'start' : 'end',
      {
        ...DEFAULT_TRANSITION,
        kind: (['dissolve', 'fade', 'slide', 'push'] as const)[which % 4]!,
        duration: frame(length),
      },
      FRAME,
    ),
  layout: (p, { at, length, which, newId }) =>
    setLayout(
      p,
      { start: frame(at), end: frame(at + length) },
      LAYOUTS[(['corner', 'presenter', 'screen'] as const)[which % 3]!],
      newId,
    ),
  timeSpan: (p, { which, at, length }) => {
    const spans = [...p.callouts, ...p.framings, ...p.layouts];
    if (spans.length)
      timeSpan(p, spans[which % spans.length]!.id, frame(at), frame(at + length), FRAME);
  },
  removeSpan: (p, { which }) =>
    p.callouts.length && removeSpan(p, p.callouts[which % p.callouts.length]!.id),
  unlink: (p, { id }) => unlinkClip(p, id),
  link: (p, { id, which, newId }) => {
    const ids = clipIds(p);
    linkClips(p, [id, ids[(which * 7 + 3) % ids.length]!], newId);
  },
  group: (p, { id, which, newId }) => {
    const ids = clipIds(p);
    groupClips(p, [...new Set([id, ids[(which * 7 + 3) % ids.length]!])], 'Intro', newId);
  },
  ungroup: (p, { which }) => p.groups.length && ungroup(p, p.groups[which % p.groups.length]!.id),
  gain: (p, { id, which }) => setClipGain(p, id, which - 30),
  mute: (p, { id, which }) => muteClips(p, [id], which % 2 > 0),
  level: (p, { id, at, which }) => setLevelPoint(p, id, frame(at), which - 40, FRAME),
  fades: (p, { id, length }) => setFades(p, id, frame(length), frame(length / 2)),
  silence: (p, { at, length }) =>
    silenceRange(p, { start: frame(at), end: frame(at + length) }, null),
  detach: (p, { id, newId }) => detachAudio(p, SOURCES, id, newId),
  addLane: (p, { which, newId }) =>
    addLane(p, (['screen', 'presenter', 'voice'] as const)[which % 3]!, newId),
  removeLane: (p, { laneId }) => removeLane(p, laneId),
  moveLane: (p, { laneId, which }) => moveLane(p, laneId, which % 2 ? 1 : -1),
  lane: (p, { laneId, which }) =>
    changeLane(p, laneId, { gain: which - 30, solo: which % 2 > 0, name: `Lane ${which}` }),
  marker: (p, { at, newId }) =>
    addMarker(p, { id: newId(), time: frame(at), name: 'Here', color: '#8e3f66' }),
  settings: (p, { which }) => {
    changePresenter(p, { size: 0.1 + (which % 8) / 10 });
    changeKey(p, 'camera', { tolerance: which });
  },
};

const step = fc.record({ name: fc.constantFrom(...Object.keys(EDITS)), place: numbers });
type Step = typeof step extends fc.Arbitrary<infer S> ? S : never;

function toEdit({ name, place }: Step, project: Project, newId: () => string): Edit {
  const ids = clipIds(project);
  const id = ids[place.which % Math.max(1, ids.length)] ?? 'none';
  const laneId = project.lanes[place.at % project.lanes.length]!.id;
  return (draft) => void EDITS[name]!(draft, { ...place, id, laneId, newId });
}

/** Applies edits; those that are refused with a sentence leave everything as it was. */
function run(
  steps: readonly Step[],
  start: Project,
  newId: () => string,
  each: (before: Versioned, after: Versioned, s: Step) => void = () => {},
): Versioned {
  let state: Versioned = { project: start, history: EMPTY_HISTORY };
  for (const s of steps) {
    try {
      const next = doEdit(state, s.name, toEdit(s, state.project, newId));
      each(state, next, s);
      state = next;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
    }
  }
  return state;
}

const steps = fc.array(step, { maxLength: 25 });
const RUNS = { numRuns: Number(process.env.RUNS ?? 120) };

test('the history of any edits is taken when it is saved, and fits when it is opened', () => {
  fc.assert(
    fc.property(steps, fc.nat(25), (list, back) => {
      let state = run(list, withStill(counter()), counter());
      for (let i = 0; i < back; i++) state = undo(state);
      const saved = JSON.parse(JSON.stringify(state.history)) as History;
      expect(readHistory(saved)).toEqual({ history: saved });
      expect(historyFits(state.project, saved)).toBe(true);
    }),
    RUNS,
  );
});

test('a label that quotes a long text is cut off, not refused', () => {
  const entry = { label: `Move ${'Celadon '.repeat(100)}`, forward: {}, inverse: {} };
  const read = readHistory({ done: [entry], undone: [] });
  expect(read).toHaveProperty('history');
  expect((read as { history: History }).history.done[0]!.label).toHaveLength(200);
});

test('undoing everything gives the first document byte for byte, redoing all the last', () => {
  fc.assert(
    fc.property(steps, (list) => {
      const newId = counter();
      const first = withStill(newId);
      const text = JSON.stringify(first);
      let state = run(list, first, newId);
      const last = JSON.stringify(state.project);
      const count = state.history.done.length;
      for (let i = 0; i < count; i++) state = undo(state);
      expect(JSON.stringify(state.project)).toBe(text);
      // As after a reload: history is plain data.
      state = JSON.parse(JSON.stringify(state)) as Versioned;
      for (let i = 0; i < count; i++) state = redo(state);
      expect(JSON.stringify(state.project)).toBe(last);
      expect(JSON.stringify(goToStep(state, 0).project)).toBe(text);
    }),
    RUNS,
  );
});

test('every document stays sound: ordered, without overlap, within its footage', () => {
  fc.assert(
    fc.property(steps, (list) => {
      const newId = counter();
      run(list, withStill(newId), newId, (_before, after, s) => {
        const checked = validateProject(JSON.parse(JSON.stringify(after.project)), SOURCES);
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
    fc.property(fc.array(step, { minLength: 20, maxLength: 40 }), (list) => {
      const newId = counter();
      for (const { label } of run(list, withStill(newId), newId).history.done) done.add(label);
    }),
    { numRuns: 150, seed: 7 },
  );
  expect(Object.keys(EDITS).filter((name) => !done.has(name) && name !== 'pace')).toEqual([]);
});

/**
 * Footage time less the clip's, as it was recorded: the same for all parts of a take set while they
 * are in step.
 */
const offset = (clip: Clip, at: number) => sourceTime(clip, at) - at * clip.speed;

test('linked recordings stay in step to the tick', () => {
  // Edits whose purpose is to change what is linked, or to move one against the other, are left
  // out.
  const apart = new Set(['shift', 'link', 'pace']);
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
      expect(used(after) + removed).toBe(used(before));
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
