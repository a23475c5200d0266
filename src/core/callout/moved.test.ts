import fc from 'fast-check';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { calloutScene } from '../frame/callout-layers';
import type { Callout, Project } from '../project/model';
import { turned } from '../scale/rect';
import { sceneAt } from '../scene/scene';
import { secondsToTicks } from '../time/ticks';
import { AS_IT_IS, UNPOSED } from './keyframes';
import type { Handle } from './kind';
import { kindOf, type CalloutKindName } from './kinds';
import { movedCallout } from './moved';

const NEAR = 10;
const AT = secondsToTicks(4);
const KINDS = ['text', 'note', 'arrow', 'box', 'highlight', 'count', 'keycaps', 'lens'] as const;
const SPOT = {
  at: { x: 900, y: 500 },
  size: SOURCES.footage.screen!,
  frame: { width: 1920, height: 1080 },
};
const withCallout = (callout: Callout): Project => {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  project.callouts.push(callout);
  return project;
};
const made = (kind: CalloutKindName, more: object): Callout =>
  ({
    ...kindOf({ kind }).create!(SPOT),
    ...{ id: 'c', start: 0, end: secondsToTicks(8) },
    ...{ anchor: { to: 'footage', footageId: 'screen' }, ...UNPOSED, ...more },
  }) as unknown as Callout;

const sceneOf = (callout: Callout) =>
  calloutScene(sceneAt(withCallout(callout), SOURCES, AT), callout)!;
/** Where a handle is in the frame. */
function placeOf(callout: Callout, { id }: Handle) {
  const on = sceneOf(callout);
  const { at, shift } = kindOf(callout)
    .handles(callout)
    .find((one) => one.id === id)!;
  const { x, y } = on.toOutput(at);
  const way = turned(shift.dx * on.ratio, shift.dy * on.ratio, on.turn);
  return { x: x + way.x, y: y + way.y };
}

const pose = fc.record({
  dx: fc.integer({ min: -200, max: 200 }),
  dy: fc.integer({ min: -200, max: 200 }),
  size: fc.double({ min: 0.3, max: 3, noNaN: true }),
  turn: fc.integer({ min: -120, max: 120 }),
  opacity: fc.constant(1),
});
const way = fc.record({
  dx: fc.integer({ min: -150, max: 150 }),
  dy: fc.integer({ min: -150, max: 150 }),
});
const cases = fc.tuple(fc.constantFrom(...KINDS), fc.nat(5), pose, way);

test('a handle stays under the hand, however its callout is moved, sized and turned', () => {
  fc.assert(
    fc.property(cases, ([kind, which, pose, way]) => {
      const callout = made(kind, { pose });
      const handles = kindOf(callout).handles(callout);
      const handle = handles[which % handles.length]!;
      const change = movedCallout(callout, handle, sceneOf(callout), way, AT, NEAR);
      const moved = { ...callout, ...change } as Callout;
      // A side that would become too short ends under the hand no more.
      const rect = 'rect' in moved ? moved.rect : null;
      if (rect && handle.look === 'corner' && Math.min(rect.width, rect.height) < 9) return;
      const [from, to] = [placeOf(callout, handle), placeOf(moved, handle)];
      expect(to.x - from.x).toBeCloseTo(way.dx, 4);
      expect(to.y - from.y).toBeCloseTo(way.dy, 4);
    }),
  );
});

test('where poses are kept all of it moves at the instant, and not at the others', () => {
  fc.assert(
    fc.property(fc.constantFrom(...KINDS), pose, way, (kind, pose, way) => {
      const keyframes = [
        { at: secondsToTicks(1), ...AS_IT_IS, dx: 30 },
        { at: AT, ...pose },
      ];
      const callout = made(kind, { keyframes });
      const change = movedCallout(callout, null, sceneOf(callout), way, AT, NEAR);
      const moved = { ...callout, ...change } as Callout;
      expect(moved.keyframes[0]).toEqual(keyframes[0]);
      expect(moved.keyframes).toHaveLength(2);
      const [handle] = kindOf(callout).handles(callout);
      const [from, to] = [placeOf(callout, handle!), placeOf(moved, handle!)];
      expect(to.x - from.x).toBeCloseTo(way.dx, 4);
      expect(to.y - from.y).toBeCloseTo(way.dy, 4);
      expect({ ...moved, ...UNPOSED }).toEqual({ ...callout, ...UNPOSED });
    }),
  );
});
