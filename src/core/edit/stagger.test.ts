import { counter, demoProject, FRAME, frame } from './fixture';
import { stagger } from './stagger';

test('callouts begin one after the other and end when they did', () => {
  const project = demoProject(counter());
  const [a, b, c] = project.callouts;
  for (const one of [a!, b!, c!]) Object.assign(one, { start: frame(30), end: frame(40) });
  b!.keyframes = [{ at: frame(3), dx: 1, dy: 2, size: 1, turn: 0, opacity: 1 }];
  stagger(project, [a!.id, b!.id, c!.id], frame(8), FRAME);
  const times = [a!, b!, c!].map(({ start, end }) => [start / FRAME, end / FRAME]);
  expect(times).toEqual([
    [30, 40],
    [38, 40],
    [46, 47],
  ]);
  // What is kept at an instant of the timeline stays there.
  expect(b!.keyframes[0]!.at).toBe(frame(-5));
  expect(() => stagger(project, [a!.id], frame(8), FRAME)).toThrow(/two callouts or more/);
});
