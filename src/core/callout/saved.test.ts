import { validateProject } from '../project/validate';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { checkOf } from '../schema/check';
import { secondsToTicks } from '../time/ticks';
import type { Anchor } from './anchor';
import { UNPOSED } from './keyframes';
import { kindOf, KINDS, type CalloutKindName } from './kinds';
import type { Callout } from './model';
import { SavedCallout, savedCalloutAt } from './saved';

const OF = { width: 1280, height: 720 };
const NAMES = (Object.keys(KINDS) as CalloutKindName[]).filter((kind) => kindOf({ kind }).create);
const saved = (kind: CalloutKindName, anchor: Anchor): SavedCallout => {
  const spot = { at: { x: 320, y: 180 }, size: OF, frame: { width: 1920, height: 1080 } };
  const times = { id: 'old', start: secondsToTicks(7), end: secondsToTicks(9) };
  const callout = { ...kindOf({ kind }).create!(spot), ...times, anchor, ...UNPOSED };
  return { callout: callout as unknown as Callout, of: OF };
};
const USE = {
  ...{ id: 'new', start: secondsToTicks(2), footage: SOURCES.footage.screen! },
  frame: { width: 1920, height: 1080 },
};

test.each(NAMES)('a saved %s is sound, and stands elsewhere where it stood', (kind) => {
  const value = saved(kind, { to: 'footage', footageId: 'of-another-project' });
  expect(checkOf(SavedCallout)(value)).toHaveProperty('value');
  const used = savedCalloutAt(value, USE)!;
  expect(used).toMatchObject({
    ...{ id: 'new', start: secondsToTicks(2), end: secondsToTicks(4) },
    anchor: { to: 'footage', footageId: 'screen' },
  });
  const middle = (callout: Callout) => {
    const { at, size } = kindOf(callout).handles(callout)[0]!;
    return [at.x + (size?.width ?? 0) / 2, at.y + (size?.height ?? 0) / 2] as const;
  };
  const [from, to] = [middle(value.callout), middle(used)];
  expect(to[0] / 2560).toBeCloseTo(from[0] / OF.width, 6);
  expect(to[1] / 1440).toBeCloseTo(from[1] / OF.height, 6);
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  project.callouts.push(used);
  expect(validateProject(project, SOURCES)).toHaveProperty('project');
});

test('one on the frame needs no recording; one on a recording does', () => {
  const alone = { ...USE, footage: null };
  expect(savedCalloutAt(saved('box', { to: 'frame' }), alone)).toMatchObject({
    anchor: { to: 'frame' },
  });
  expect(savedCalloutAt(saved('box', { to: 'footage', footageId: 'x' }), alone)).toBeNull();
  expect(savedCalloutAt(saved('box', { to: 'pointer', footageId: 'x' }), USE)).toMatchObject({
    anchor: { to: 'pointer', footageId: 'screen' },
  });
});
