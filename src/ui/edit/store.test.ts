import { counter, demoProject, FRAME } from '@/core/edit/fixture';
import { EMPTY_HISTORY } from '@/core/edit/history';
import { createEditor } from './session/create-editor';

const open = () => {
  const project = demoProject(counter());
  return createEditor({
    ...{ id: 'p', name: 'P', project, history: EMPTY_HISTORY, revision: 1, suggestion: null },
    notes: [],
  });
};
const labels = (store: ReturnType<typeof open>) =>
  store.getState().history.done.map((entry) => entry.label);

test('moves of one gesture are one step of undo', () => {
  const store = open();
  const { apply, undo } = store.getState();
  const before = store.getState().project;
  for (const size of [0.3, 0.32, 0.34]) apply('change-presenter', { change: { size } }, true);
  expect(labels(store)).toEqual(['Presenter']);
  undo();
  expect(store.getState().project).toEqual(before);
});

test('the same label in another gesture is another step', () => {
  const store = open();
  const { apply, endGesture, undo } = store.getState();
  apply('change-presenter', { change: { corner: 'top-left' } }, true);
  endGesture();
  apply('change-presenter', { change: { shape: 'rectangle' } }, true);
  expect(labels(store)).toEqual(['Presenter', 'Presenter']);
  undo();
  expect(store.getState().project.presenter).toMatchObject({
    corner: 'top-left',
    shape: 'circle',
  });
});

test('the level of one lane and then of another are two steps, though nothing ended the gesture', () => {
  const store = open();
  const { apply, select, project } = store.getState();
  const lanes = project.lanes.filter((l) => l.kind === 'voice' || l.kind === 'music');
  for (const [i, lane] of lanes.entries()) {
    select({ kind: 'lane', id: lane.id });
    apply('change-lane', { laneId: lane.id, change: { gain: -3 - i } }, true);
  }
  expect(labels(store)).toEqual(lanes.map(() => 'Lane level'));
});

test('an edit in between, an undo, and one that changes nothing end the gesture', () => {
  const store = open();
  const { apply, undo, redo } = store.getState();
  const size = (value: number) => apply('change-presenter', { change: { size: value } }, true);
  size(0.31);
  apply('change-presenter', { change: { corner: 'top-left' } });
  size(0.32);
  expect(labels(store)).toEqual(['Presenter', 'Presenter', 'Presenter']);
  undo();
  redo();
  size(0.34);
  expect(labels(store)).toHaveLength(4);
});

test('an edit by key in the middle of a drag stays, and the drag is over', () => {
  const store = open();
  const { drag, apply } = store.getState();
  const clip = store.getState().project.lanes.find((l) => l.kind === 'music')!.clips[0]!;
  const at = (id: string) =>
    store
      .getState()
      .project.lanes.flatMap((l) => l.clips)
      .find((c) => c.id === id)!.start;
  const under = drag();
  const move = (frames: number) =>
    under.to('move-things', { ids: [clip.id], by: frames * FRAME, lanes: null });
  move(10);
  move(20);
  expect(at(clip.id)).toBe(clip.start + 20 * FRAME);
  apply('split-clip', { clipId: clip.id, time: clip.start + 200 * FRAME });
  const count = store.getState().project.lanes.flatMap((l) => l.clips).length;
  move(30);
  expect(at(clip.id)).toBe(clip.start + 20 * FRAME);
  expect(store.getState().project.lanes.flatMap((l) => l.clips)).toHaveLength(count);
  expect(labels(store)).toEqual(['Move', 'Split']);
});

test('a history that does not fit is given up instead of breaking the page', () => {
  const store = open();
  const entry = { label: 'x', forward: {}, inverse: { lanes: { steps: [['drop', 99]] } } };
  store.setState({ history: { done: [entry as never], undone: [] } });
  const before = store.getState().project;
  store.getState().undo();
  expect(store.getState().project).toBe(before);
  expect(labels(store)).toEqual([]);
});
