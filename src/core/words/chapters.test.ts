import { emptyProject, frame } from '../edit/fixture';
import { rateFromNumber } from '../time/ticks';
import { chaptersOf } from './chapters';

const project = emptyProject();
project.steps = [10, null, 100, 400].map((start, i) => ({
  id: `s${i}`,
  start: start === null ? null : frame(start),
  title: i === 3 ? '' : `Step of ${start}`,
  narration: '',
  action: '',
  notes: '',
}));
const times = (from: number, to: number) =>
  chaptersOf(project, { start: frame(from), end: frame(to) }, rateFromNumber(30)).map((c) => [
    c.start / frame(1),
    c.end / frame(1),
    c.title,
  ]);

test('chapters follow on one another without gaps from the very start', () => {
  expect(times(0, 500)).toEqual([
    [0, 100, 'Step of 10'],
    [100, 400, 'Step of 100'],
    [400, 500, 'Step 3'],
  ]);
});

test('a range has the chapters that reach into it, and none when there is but one', () => {
  expect(times(50, 450)).toEqual([
    [0, 50, 'Step of 10'],
    [50, 350, 'Step of 100'],
    [350, 400, 'Step 3'],
  ]);
  expect(times(120, 300)).toEqual([]);
  expect(times(0, 100)).toEqual([]);
});
