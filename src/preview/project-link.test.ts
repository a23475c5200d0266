import { counter, demoProject, FRAME, SOURCES } from '@/core/edit/fixture';
import { doEdit, EMPTY_HISTORY, undo } from '@/core/edit/history';
import { prepareEdit } from '@/core/edit/registry';
import { ProjectReceiver, ProjectSender } from './project-link';

test('a worker knows what the page has after each edit, and is told only what is new', () => {
  const newId = counter();
  const [sender, receiver] = [new ProjectSender(), new ProjectReceiver()];
  const bytes: number[] = [];
  const tell = (project: typeof state.project, sources = SOURCES) => {
    const news = sender.news(project, sources);
    if (!news) return bytes.push(0);
    const text = JSON.stringify(news);
    receiver.receive(JSON.parse(text) as typeof news);
    expect(receiver.project).toEqual(project);
    expect(receiver.sources).toEqual(sources);
    return bytes.push(text.length);
  };
  let state = { project: demoProject(newId), history: EMPTY_HISTORY };
  tell(state.project);
  for (const [id, args] of [
    ['split-all', { time: 300 * FRAME }],
    ['ripple-delete', { start: 10 * FRAME, end: 60 * FRAME }],
    ['change-presenter', { change: { size: 0.5 } }],
  ] as const) {
    const { label, edit } = prepareEdit(id, args as never, state.project, SOURCES, newId);
    state = doEdit(state, label, edit) as typeof state;
    tell(state.project);
  }
  tell(undo(state).project);
  tell(undo(state).project);
  tell(undo(state).project, { ...SOURCES });
  // The size of the presenter, and that undone: a few numbers. The same again: nothing.
  expect(bytes[3]).toBeLessThan(600);
  expect(bytes[4]).toBeLessThan(600);
  expect(bytes[5]).toBe(0);
});
