import { secondsToTicks } from '../time/ticks';
import { liftClips, moveClip, splitClip, trimClip } from './clips';
import { EditError } from './error';
import { counter, demoProject as demo, emptyProject, FRAME, frame, SOURCES } from './fixture';
import { doEdit, EMPTY_HISTORY, undo, type Versioned } from './history';
import { placeFootage } from './place';
import { closeGap } from './ripple';
import { changePresenter } from './settings';

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
    expect(() => splitClip(project, presenter.clips[1]!.id, frame(300), newId)).toThrow(
      /already a cut/,
    );
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
    expect(() => moveClip(project, presenter.clips[1]!.id, frame(500), 'screen')).toThrow(
      EditError,
    );
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
    for (const size of [0.2, 0.3, 0.4])
      state = doEdit(state, 'Presenter', (draft) => changePresenter(draft, { size }), true);
    expect(state.history.done).toHaveLength(1);
    expect(undo(state).project).toEqual(project);
  });
});
