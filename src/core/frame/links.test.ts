import { UNPOSED } from '../callout/keyframes';
import { addressOf, type LinkTarget } from '../callout/kinds/link';
import { USUAL_MOTION } from '../callout/motion';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { addSpan } from '../edit/spans';
import type { Project } from '../project/model';
import { isOf } from '../schema/check-plain';
import { secondsToTicks } from '../time/ticks';
import { findLinks, VideoLinks } from './links';

const OUTPUT = { width: 1280, height: 720 };
const RATE = { num: 10, den: 1 };
const facts = SOURCES.footage.screen!;
const whole = { start: 0, end: secondsToTicks(8) };

/** A project with a link over a quarter of its screen from 2 to 4 s, and two steps. */
function linked(target: LinkTarget | null): Project {
  const project = emptyProject();
  placeFootage(project, facts, 0, counter());
  project.steps.push(
    { id: 'a', title: 'Open', narration: '', action: '', notes: '', start: 0 },
    { id: 'b', title: '', narration: '', action: '', notes: '', start: secondsToTicks(5) },
  );
  addSpan(project, 'callouts', {
    ...{ id: 'l', kind: 'link', label: 'Read on', target, color: '#0e6b63', line: 0, corner: 0 },
    ...{ start: secondsToTicks(2), end: secondsToTicks(4), ...UNPOSED, ...USUAL_MOTION },
    anchor: { to: 'footage', footageId: 'screen' },
    rect: {
      x: facts.width / 4,
      y: facts.height / 4,
      width: facts.width / 2,
      height: facts.height / 2,
    },
  });
  return project;
}
const linksOf = (project: Project, range = whole) => {
  const search = findLinks(project, SOURCES, range, RATE, OUTPUT);
  let step = search.next();
  while (!step.done) step = search.next();
  const found = step.value;
  expect(isOf(VideoLinks, found)).toBe(true);
  return found.links;
};

test('a link is told with its time in the video, where it lies and where it leads', () => {
  const [link, ...others] = linksOf(linked({ address: 'https://kilnbook.example/help' }));
  expect(others).toEqual([]);
  expect(link).toMatchObject({ start: 2, end: 4, label: 'Read on' });
  expect(link!.to).toEqual({ address: 'https://kilnbook.example/help' });
  expect(link!.places).toEqual([{ from: 2, x: 0.25, y: 0.25, width: 0.5, height: 0.5 }]);
});

test('an export of a part has its own times, and leads only to steps that it shows', () => {
  const part = { start: secondsToTicks(3), end: secondsToTicks(6) };
  expect(linksOf(linked({ stepId: 'b' }), part)).toMatchObject([
    { start: 0, end: 1, to: { seconds: 2, step: 'Step 2' } },
  ]);
  expect(linksOf(linked({ stepId: 'a' }), part)[0]!.to).toEqual({ seconds: 0, step: 'Open' });
  const early = { start: 0, end: secondsToTicks(4) };
  expect(linksOf(linked({ stepId: 'b' }), early)).toEqual([]);
  expect(linksOf(linked({ stepId: 'gone' }))).toEqual([]);
  expect(linksOf(linked(null))).toEqual([]);
});

function framed(project: Project, share: number): Project {
  addSpan(project, 'framings', {
    ...{ id: 'f', ...whole, rampIn: 0, rampOut: 0, footageId: 'screen', reason: '' },
    rect: { x: 0, y: 0, width: facts.width * share, height: facts.height * share },
    ...{ endRect: null, pinned: true },
  });
  return project;
}

test('a link goes along with the view, is cut off at its edge, and is none beyond it', () => {
  const target = { address: 'mailto:help@kilnbook.example' };
  const [link] = linksOf(framed(linked(target), 0.5));
  expect(link!.places).toEqual([{ from: 2, x: 0.5, y: 0.5, width: 0.5, height: 0.5 }]);
  expect(linksOf(framed(linked(target), 0.2))).toEqual([]);
});

test('addresses get what people leave out, and nothing that runs is one', () => {
  expect(addressOf(' kilnbook.example/help ')).toBe('https://kilnbook.example/help');
  expect(addressOf('kilnbook.example:8080/x')).toBe('https://kilnbook.example:8080/x');
  expect(addressOf('help@kilnbook.example')).toBe('mailto:help@kilnbook.example');
  expect(addressOf('http://kilnbook.example')).toBe('http://kilnbook.example');
  for (const bad of ['javascript:alert(1)', 'data:text/html,x', 'file:///etc', 'a b', '', 'x"y'])
    expect(addressOf(bad)).toBeNull();
});
