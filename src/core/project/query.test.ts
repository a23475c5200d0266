import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { secondsToTicks } from '../time/ticks';
import { presentedAt, presenterTakes, shownFootage } from './query';

test('a take is looked up where it is in front, and one that is always covered nowhere', () => {
  const project = emptyProject();
  const newId = counter();
  const camera = SOURCES.footage.camera!;
  const other = { ...camera, id: 'other', duration: secondsToTicks(10) };
  placeFootage(project, camera, 0, newId);
  placeFootage(project, SOURCES.footage.screen!, 0, newId);
  expect([...presenterTakes(project)]).toEqual(['camera']);
  expect(presentedAt(project, 'camera')).toBe(camera.duration / 2);
  expect(presentedAt(project, 'screen')).toBeNull();
  placeFootage(project, other, camera.duration, newId);
  expect(presentedAt(project, 'other')).toBe(camera.duration + other.duration / 2);
  // A lane in front of it takes its place for all of its time.
  const [lane] = project.lanes.filter(({ kind }) => kind === 'presenter');
  const front = { ...structuredClone(lane!), id: 'front' };
  front.clips = [{ ...front.clips[0]!, id: 'clip', footageId: 'third' }];
  project.lanes.unshift(front);
  expect(presentedAt(project, 'camera')).toBeNull();
  expect(presentedAt(project, 'other')).not.toBeNull();
});

test('a picture that stands behind the presenter is shown', () => {
  const project = emptyProject();
  expect(shownFootage(project).has('still')).toBe(false);
  project.presenter.backdrop = { footageId: 'still' };
  expect(shownFootage(project).has('still')).toBe(true);
});
