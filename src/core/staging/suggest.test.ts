import { counter, emptyProject, facts } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { setLayout } from '../edit/spans';
import { LAYOUTS } from '../layout/built-in';
import { KEEPS_CLEAR } from '../layout/clearing';
import type { Sources } from '../project/sources';
import { secondsToTicks } from '../time/ticks';
import type { ScreenActivity } from '../vision/screen-activity';
import { layoutFor, suggestLayouts, type StepFacts } from './suggest';

const TALK: StepFacts = {
  ...{ seconds: 20, first: false, last: false, voice: 0.9, presenter: 1, screen: 1 },
  ...{ busy: 0, hidden: 0 },
};

test.each([
  ['nobody is there', { presenter: 0 }, undefined],
  ['no screen is there', { screen: 0 }, 'presenter'],
  ['they greet', { first: true }, 'presenter'],
  ['they say farewell', { last: true }, 'presenter'],
  ['they talk long while nothing happens', {}, 'side'],
  ['they talk for a moment while nothing happens', { seconds: 5 }, 'corner'],
  ['nobody talks', { voice: 0 }, 'corner'],
  ['work goes on', { busy: 0.6 }, 'corner'],
  ['work goes on in the first step', { first: true, busy: 0.6 }, 'corner'],
  ['all of the screen is needed', { busy: 0.6, hidden: 0.8 }, 'screen'],
  ['text lies everywhere, and nothing happens', { hidden: 1 }, 'side'],
])('where %s', (_name, facts: Partial<StepFacts>, kind) => {
  const found = layoutFor({ ...TALK, ...facts });
  expect(found?.kind).toBe(kind);
  if (found) expect(found.reason).toMatch(/^[A-Z].*\.$/);
});

/** Three steps of twenty seconds: a greeting, work, and a talk. */
function setUp() {
  const screen = facts('screen', 'screen', 60);
  const camera = { ...facts('camera', 'presenter', 60), hasAudio: true };
  const project = emptyProject();
  const newId = counter();
  placeFootage(project, camera, 0, newId);
  placeFootage(project, screen, 0, newId);
  project.steps = [0, 20, 40].map((start, i) => ({
    ...{ id: `step-${i}`, title: `Step ${i}`, start: secondsToTicks(start) },
    ...{ narration: '', action: '', notes: '' },
  })) as typeof project.steps;
  const typing: ScreenActivity = {
    ...{ kind: 'typing', start: 22_000, end: 38_000, scrolled: 0 },
    box: { x: 300, y: 200, width: 300, height: 40 },
  };
  const { width, height } = screen;
  const sight = { width, height, length: 60_000, pointer: null, activities: [typing], pages: [] };
  const sources: Sources = {
    ...{ footage: { screen, camera }, pointers: {}, sights: { screen: sight } },
  };
  return { project, sources };
}

test('each step is told what suits it, if that is another than it has', () => {
  const { project, sources } = setUp();
  const kinds = () => suggestLayouts(project, sources).map(({ stepId, kind }) => [stepId, kind]);
  expect(kinds()).toEqual([
    ['step-0', 'presenter'],
    ['step-2', 'presenter'],
  ]);
  const [first] = suggestLayouts(project, sources);
  expect(first).toMatchObject({ start: 0, end: secondsToTicks(20) });
  setLayout(project, first!, LAYOUTS[first!.kind], counter());
  expect(kinds()).toEqual([['step-2', 'presenter']]);
  // What was set by hand is left alone.
  const own = { ...LAYOUTS.side, name: 'By hand', background: '#000000' };
  setLayout(project, { start: secondsToTicks(40), end: secondsToTicks(60) }, own, counter());
  expect(kinds()).toEqual([]);
  expect(suggestLayouts(emptyProject(), sources)).toEqual([]);
});

test('whoever makes room counts as one who stands in a corner', () => {
  const { project, sources } = setUp();
  const before = suggestLayouts(project, sources);
  const presenter = {
    ...{ box: { x: 0.02, y: 0.66, width: 0.17, height: 0.3 }, shape: 'circle' as const },
    ...{ feather: 0, center: null, ring: null },
  };
  const room = { ...LAYOUTS.corner, name: KEEPS_CLEAR, presenter };
  setLayout(project, { start: 0, end: secondsToTicks(60) }, room, counter());
  expect(suggestLayouts(project, sources)).toEqual(before);
});
