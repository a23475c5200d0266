import { AS_IT_IS, UNPOSED } from './keyframes';
import { counter, emptyProject, FRAME as TICK, SOURCES } from '../edit/fixture';
import { followContentOf, restCallout } from '../edit/followed';
import { placeFootage } from '../edit/place';
import { addSpan } from '../edit/spans';
import { planFrame } from '../frame/plan-frame';
import { followTask } from '../project/follow-task';
import type { Callout, Project } from '../project/model';
import { validateProject } from '../project/validate';
import type { InOutput } from '../scale/rect';
import { secondsToTicks } from '../time/ticks';
import type { FollowPath } from './follow-path';
import { kindOf } from './kinds';

const FRAME = { width: 1920, height: 1080 };
const facts = SOURCES.footage.screen!;
const path: FollowPath = {
  ...{ ms: 1000, from: 0, to: 6000, step: 33.333 },
  of: { width: facts.width, height: facts.height, length: 6000 },
  runs: [
    {
      ...{ from: 500, to: 3000 },
      places: [
        [500, 0, 100, 1, 1],
        [1000, 0, 0, 1, 1],
        [2000, 0, -200, 1, 1],
        [2500, 0, -200, 1, 0],
      ],
    },
    { from: 4000, to: 5000, places: [[4000, 100, 0, 1.5, 1]] },
  ],
};
const cover: Callout = {
  ...{ id: 'c', kind: 'cover', way: 'solid', color: '#1e2a32', strength: 24 },
  ...{ start: secondsToTicks(1), end: secondsToTicks(2) },
  anchor: { to: 'footage', footageId: 'screen' },
  ...UNPOSED,
  rect: { x: 400, y: 600, width: 200, height: 40 },
};

function following(callout: Callout = cover, whole = true): Project {
  const project = emptyProject();
  placeFootage(project, facts, 0, counter());
  addSpan(project, 'callouts', structuredClone(callout));
  followContentOf(project, 'c', path, { time: secondsToTicks(1), whole }, TICK);
  return project;
}
/** Where covers lie at a time, in output pixels. */
const covers = (project: Project, seconds: number, size = FRAME): InOutput[] =>
  planFrame(project, SOURCES, secondsToTicks(seconds), size).layers.flatMap((layer) =>
    layer.kind === 'region' ? [layer.area] : [],
  );
const ratio = FRAME.width / facts.width;

test('a cover that goes along lasts from a picture before its content is seen to one after', () => {
  const project = following();
  const { start, end } = project.callouts[0]!;
  expect(start).toBeLessThanOrEqual(secondsToTicks(0.5));
  expect(start).toBeGreaterThan(secondsToTicks(0.4));
  expect(start % TICK).toBe(0);
  expect(end).toBeGreaterThan(secondsToTicks(5));
  expect(validateProject(structuredClone(project), SOURCES)).toHaveProperty('project');
});

test('it covers where its content is, all places at a change, and nothing where that is gone', () => {
  const project = following();
  const { rect } = cover as Callout & { kind: 'cover' };
  const holds = (area: InOutput, dx: number, dy: number, scale: number) => {
    expect(area.x).toBeLessThanOrEqual((rect.x * scale + dx) * ratio);
    expect(area.y).toBeLessThanOrEqual((rect.y * scale + dy) * ratio);
    const [right, bottom] = [rect.x + rect.width, rect.y + rect.height];
    expect(area.x + area.width).toBeGreaterThanOrEqual((right * scale + dx) * ratio);
    expect(area.y + area.height).toBeGreaterThanOrEqual((bottom * scale + dy) * ratio);
  };
  const [only, ...none] = covers(project, 1.5);
  expect(none).toEqual([]);
  holds(only!, 0, 0, 1);
  const [before, after] = covers(project, 2);
  holds(before!, 0, 0, 1);
  holds(after!, 0, -200, 1);
  holds(covers(project, 4.5)[0]!, 100, 0, 1.5);
  expect(covers(project, 3.5)).toEqual([]);
  // Where it may be it reaches further.
  expect(covers(project, 2.8)[0]!.height).toBeGreaterThan(covers(project, 2.2)[0]!.height);
});

test('it goes along in a quicker and in a frozen clip', () => {
  const project = following();
  const clip = project.lanes.find((lane) => lane.kind === 'screen')!.clips[0]!;
  const y = covers(project, 2.2)[0]!.y;
  Object.assign(clip, { speed: 2, duration: clip.duration / 2 });
  expect(covers(project, 1.1)[0]!.y).toBe(y);
  Object.assign(clip, { speed: 0, source: secondsToTicks(2.2) });
  expect(covers(project, 1.7)[0]!.y).toBe(y);
});

test('anything else that goes along is drawn where its content is seen, and nowhere else', () => {
  const spot = { at: { x: 500, y: 620 }, size: facts, frame: FRAME };
  const box = {
    ...kindOf({ kind: 'ellipse' }).create!(spot),
    ...{ id: 'c', start: 0, end: secondsToTicks(6), anchor: cover.anchor, ...UNPOSED },
  } as Callout;
  const project = following(box, false);
  expect(project.callouts[0]).toMatchObject({ start: 0, end: secondsToTicks(6) });
  const drawn = (seconds: number) =>
    planFrame(project, SOURCES, secondsToTicks(seconds), FRAME).layers.filter(
      (layer) => layer.kind === 'drawing',
    ).length;
  expect([1.5, 2.8, 3.5, 4.5].map(drawn)).toEqual([1, 0, 0, 1]);
});

test('put down it stays where its content was, and goes along again from there', () => {
  const project = following();
  restCallout(project, 'c', secondsToTicks(2.2));
  expect(project.callouts[0]).toMatchObject({
    anchor: { to: 'footage', footageId: 'screen' },
    rect: { x: 400, y: 400, width: 200, height: 40 },
  });
  const task = followTask(
    following(),
    SOURCES,
    following().callouts[0]!,
    secondsToTicks(2.2),
    true,
  );
  expect(task).toMatchObject({ ms: 2200, from: 0, rect: { x: 400, y: 400, width: 200 } });
});

test('what is marked is what lies under it in its pose, and what is kept stays at its instants', () => {
  const keyframes = [
    { at: 0, ...AS_IT_IS },
    { at: secondsToTicks(0.5), ...AS_IT_IS, dx: 100, dy: 50, size: 2 },
  ];
  const posed = { ...cover, keyframes } as Callout;
  const task = (seconds: number) =>
    followTask(following(posed), SOURCES, posed, secondsToTicks(seconds), false);
  expect(task(1)).toMatchObject({ rect: { x: 400, y: 600, width: 200, height: 40 } });
  expect(task(1.5)).toMatchObject({ rect: { x: 400, y: 630, width: 400, height: 80 } });
  // It lasts longer now, from before on.
  const { start, keyframes: kept } = following(posed).callouts[0]!;
  expect(start).toBeLessThan(secondsToTicks(1));
  expect(kept.map(({ at }) => start + at)).toEqual([secondsToTicks(1), secondsToTicks(1.5)]);
});

test('why something cannot go along is said', () => {
  const project = following();
  const at = (callout: Partial<Callout>, time = secondsToTicks(1)) =>
    followTask(project, SOURCES, { ...cover, ...callout } as Callout, time, false);
  expect(at({ anchor: { to: 'frame' } })).toMatch(/stands on a recording/);
  expect(at({}, secondsToTicks(9000))).toMatch(/recording is shown/);
  expect(at({ rect: { x: 9000, y: 0, width: 50, height: 50 } } as never)).toMatch(/beyond/);
  expect(() => restCallout(project, 'gone', 0)).toThrow(/no longer there/);
  project.lanes.find((lane) => lane.kind === 'screen')!.clips[0]!.speed = 0;
  expect(at({})).toMatch(/frozen/);
});
