import fc from 'fast-check';
import type { Project } from '../project/model';
import { placedSteps } from '../project/query';
import { validateProject } from '../project/validate';
import { frameDuration, frameStart, secondsToTicks } from '../time/ticks';
import { applyEdit, type Edit } from './apply';
import { liftClips, moveClip, setClipGain, splitAll, splitClip, trimClip, unlinkClip } from './clips';
import { EditError } from './error';
import { counter, emptyProject, SOURCES } from './fixture';
import { doEdit, EMPTY_HISTORY, redo, undo, type Versioned } from './history';
import { placeFootage } from './place';
import { closeGap, rippleDelete, rippleDeleteClips } from './ripple';
import { addStep } from './outline';
import { changeLane } from './lanes';
import { changeKey, changePresenter } from './settings';
import { addSpan, removeSpan, setLayout, timeSpan } from './spans';

const RATE = { num: 30, den: 1 };
const frame = (n: number) => frameStart(n, RATE);
const FRAME = frameDuration(RATE);

function demo(newId: () => string): Project {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.camera!, 0, newId);
  placeFootage(project, SOURCES.footage.screen!, frame(42), newId);
  placeFootage(project, SOURCES.footage.music!, 0, newId);
  for (let i = 0; i < 6; i++) {
    addSpan(project, 'callouts', {
      id: newId(),
      start: frame(i * 200),
      end: frame(i * 200 + 90),
      footageId: 'screen',
      kind: 'cover',
      rect: { x: 0, y: 0, width: 50, height: 50 },
      strength: 8,
    });
    addSpan(project, 'framings', {
      id: newId(),
      start: frame(i * 250 + 60),
      end: frame(i * 250 + 240),
      rampIn: FRAME * 30,
      rampOut: FRAME * 30,
      footageId: 'screen',
      rect: { x: 0, y: 0, width: 1920, height: 1080 },
      pinned: false,
      reason: '',
    });
    addStep(project, { id: newId(), start: frame(i * 220), title: `Step ${i}`, narration: '', action: '', notes: '' });
  }
  return project;
}

const clipIds = (p: Project) => p.lanes.flatMap((lane) => lane.clips.map((c) => c.id));

/** A random edit: numbers choose what is done and where. */
const step = fc.record({ kind: fc.nat(13), which: fc.nat(60), at: fc.nat(1900), length: fc.integer({ min: 1, max: 400 }) });
type Step = typeof step extends fc.Arbitrary<infer S> ? S : never;

function toEdit({ kind, which, at, length }: Step, project: Project, newId: () => string): Edit {
  const ids = clipIds(project);
  const id = ids[which % Math.max(1, ids.length)] ?? 'none';
  const spans = [...project.callouts, ...project.framings, ...project.layouts];
  const span = spans[which % Math.max(1, spans.length)];
  return (draft) => {
    switch (kind) {
      case 0:
        return splitClip(draft, id, frame(at), newId);
      case 1:
        return splitAll(draft, frame(at), newId);
      case 2:
        return trimClip(draft, SOURCES, id, which % 2 ? 'start' : 'end', frame(at), FRAME);
      case 3:
        return moveClip(draft, id, frame(at));
      case 4:
        return liftClips(draft, [id]);
      case 5:
        return rippleDelete(draft, { start: frame(at), end: frame(at + length) }, newId);
      case 6:
        return rippleDeleteClips(draft, [id], newId);
      case 7:
        return closeGap(draft, draft.lanes[which % 5]!.id, frame(at), newId);
      case 8:
        return setLayout(
          draft,
          { start: frame(at), end: frame(at + length) },
          (['corner', 'presenter', 'screen'] as const)[which % 3]!,
          newId,
        );
      case 9:
        return span && timeSpan(draft, span.id, frame(at), frame(at + length), FRAME);
      case 10:
        return span && removeSpan(draft, span.id);
      case 11:
        return unlinkClip(draft, id);
      case 12:
        changePresenter(draft, { size: 0.1 + (which % 8) / 10 });
        return changeKey(draft, 'camera', { tolerance: which });
      default:
        return setClipGain(draft, id, which - 30);
    }
  };
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
      const next = doEdit(state, `edit ${s.kind}`, toEdit(s, state.project, newId));
      each(state, next, s);
      state = next;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
    }
  }
  return state;
}

describe('laws of editing, over random sequences', () => {
  test('undoing everything gives the first document byte for byte, redoing all the last', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        const newId = counter();
        const first = demo(newId);
        const text = JSON.stringify(first);
        let state = run(steps, first, newId);
        const last = JSON.stringify(state.project);
        const count = state.history.done.length;
        for (let i = 0; i < count; i++) state = undo(state);
        expect(JSON.stringify(state.project)).toBe(text);
        // As after a reload: history is plain data.
        state = JSON.parse(JSON.stringify(state)) as Versioned;
        for (let i = 0; i < count; i++) state = redo(state);
        expect(JSON.stringify(state.project)).toBe(last);
      }),
      { numRuns: 60 },
    );
  });

  test('every document stays sound: ordered, without overlap, within its footage', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        const newId = counter();
        run(steps, demo(newId), newId, (_before, after) => {
          const checked = validateProject(JSON.parse(JSON.stringify(after.project)), SOURCES);
          expect('faults' in checked ? checked.faults : []).toEqual([]);
        });
      }),
      { numRuns: 60 },
    );
  });

  test('linked clips stay in step to the tick', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        const newId = counter();
        const { project } = run(steps, demo(newId), newId);
        const offsets = new Map<string, number>();
        for (const lane of project.lanes)
          for (const clip of lane.clips) {
            if (!clip.link) continue;
            const offset = clip.start - clip.source;
            expect(offsets.get(clip.link) ?? offset).toBe(offset);
            offsets.set(clip.link, offset);
          }
      }),
      { numRuns: 60 },
    );
  });

  test('a locked lane never changes', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), fc.nat(4), (steps, index) => {
        const newId = counter();
        const start = demo(newId);
        changeLane(start, start.lanes[index]!.id, { locked: true });
        const kept = JSON.stringify(start.lanes[index]);
        const unlocked = steps.filter((s) => s.kind !== 13);
        expect(JSON.stringify(run(unlocked, start, newId).project.lanes[index])).toBe(kept);
      }),
      { numRuns: 60 },
    );
  });

  test('a ripple delete keeps the distance between any two things after it', () => {
    fc.assert(
      fc.property(fc.nat(1500), fc.integer({ min: 1, max: 400 }), (at, length) => {
        const newId = counter();
        const before = demo(newId);
        const range = { start: frame(at), end: frame(at + length) };
        const { project: after } = applyEdit(before, (draft) => rippleDelete(draft, range, newId));
        const things = (p: Project) => [...p.callouts, ...p.framings, ...p.lanes.flatMap((l) => l.clips), ...placedSteps(p)];
        for (const thing of things(before)) {
          if (thing.start < range.end) continue;
          expect(things(after).find((t) => t.id === thing.id)?.start).toBe(thing.start - (range.end - range.start));
        }
      }),
    );
  });
});

describe('single edits', () => {
  const build = () => {
    const newId = counter();
    const project = demo(newId);
    return { newId, project, presenter: project.lanes[0]!, voice: project.lanes[2]! };
  };

  test('a split cuts picture and sound of a recording alike, and links the right parts anew', () => {
    const { project, presenter, voice, newId } = build();
    splitClip(project, presenter.clips[0]!.id, frame(300), newId);
    expect(presenter.clips.map((c) => [c.start, c.duration])).toEqual([
      [0, frame(300)],
      [frame(300), frame(900)],
    ]);
    expect(voice.clips[1]!.source).toBe(frame(300));
    expect(voice.clips[1]!.link).toBe(presenter.clips[1]!.link);
    expect(presenter.clips[1]!.link).not.toBe(presenter.clips[0]!.link);
    expect(() => splitClip(project, presenter.clips[1]!.id, frame(300), newId)).toThrow(/already a cut/);
  });

  test('a trim can be pulled back out, but not beyond the footage or a neighbour', () => {
    const { project, presenter, newId } = build();
    const { id } = presenter.clips[0]!;
    trimClip(project, SOURCES, id, 'end', frame(100), FRAME);
    expect(presenter.clips[0]!.duration).toBe(frame(100));
    trimClip(project, SOURCES, id, 'end', frame(99_999), FRAME);
    expect(presenter.clips[0]!.duration).toBe(secondsToTicks(40));
    trimClip(project, SOURCES, id, 'end', 0, FRAME);
    expect(presenter.clips[0]!.duration).toBe(FRAME);
    trimClip(project, SOURCES, id, 'end', frame(600), FRAME);
    splitClip(project, id, frame(300), newId);
    trimClip(project, SOURCES, id, 'end', frame(500), FRAME);
    expect(presenter.clips[0]!.duration).toBe(frame(300));
  });

  test('a move onto other clips is refused with a sentence', () => {
    const { project, presenter, newId } = build();
    splitClip(project, presenter.clips[0]!.id, frame(300), newId);
    expect(() => moveClip(project, presenter.clips[0]!.id, frame(100))).toThrow(/no room/);
    expect(() => moveClip(project, presenter.clips[1]!.id, frame(500), 'screen')).toThrow(EditError);
  });

  test('lift leaves a gap, closing it moves all later things', () => {
    const { project, presenter, newId } = build();
    for (const lane of project.lanes.slice(1, 5)) if (lane.kind !== 'voice') lane.clips = [];
    splitClip(project, presenter.clips[0]!.id, frame(300), newId);
    splitClip(project, presenter.clips[1]!.id, frame(600), newId);
    liftClips(project, [presenter.clips[1]!.id]);
    expect(presenter.clips.map((c) => c.start)).toEqual([0, frame(600)]);
    closeGap(project, 'presenter', frame(400), newId);
    expect(presenter.clips.map((c) => c.start)).toEqual([0, frame(300)]);
    expect(() => closeGap(project, 'presenter', frame(400), newId)).toThrow(/no gap/);
  });

  test('sound of a screen recording is muted as soon as there is a voice', () => {
    const { project } = build();
    expect(project.lanes.find((l) => l.kind === 'computer')!.off).toBe(true);
    const alone = emptyProject();
    placeFootage(alone, SOURCES.footage.screen!, null, counter());
    expect(alone.lanes.find((l) => l.kind === 'computer')!.off).toBe(false);
  });

  test('edits of one drag are one step of history', () => {
    const { project } = build();
    let state: Versioned = { project, history: EMPTY_HISTORY };
    for (const size of [0.2, 0.3, 0.4]) state = doEdit(state, 'Presenter', (draft) => changePresenter(draft, { size }), true);
    expect(state.history.done).toHaveLength(1);
    expect(undo(state).project).toEqual(project);
  });
});
