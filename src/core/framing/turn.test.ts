import fc from 'fast-check';
import { emptyProject, frame, SOURCES } from '../edit/fixture';
import { makeRoomToTurn } from '../edit/framings';
import { addSpan } from '../edit/spans';
import type { Framing } from '../project/model';
import { MOST_TURN } from '../project/parts/framing';
import { cornersOf, middleOf, turnedAbout, type InFootage } from '../scale/rect';
import { secondsToTicks } from '../time/ticks';
import { roomForTurn, turnThatFits } from './turn';
import { viewAt } from './view';

const AREA = { x: 40, y: 20, width: 2560, height: 1440 };
const FRAME = { width: 1920, height: 1080 };

/** Any view in the frame's shape within the area. */
const anyView = fc
  .tuple(...Array.from({ length: 3 }, () => fc.double({ min: 0, max: 1, noNaN: true })))
  .map(([size, across, down]): InFootage => {
    const width = 200 + size! * (AREA.width - 200);
    const height = (width * 9) / 16;
    return {
      ...{ x: AREA.x + across! * (AREA.width - width), width },
      ...{ y: AREA.y + down! * (AREA.height - height), height },
    };
  });
const anyTurn = fc.double({ min: -MOST_TURN, max: MOST_TURN, noNaN: true });

/** How far the corners of a view that is turned reach beyond the area, in pixels. */
const beyond = (view: InFootage, degrees: number): number =>
  Math.max(
    ...cornersOf(view)
      .map((corner) => turnedAbout(corner, middleOf(view), -degrees))
      .flatMap(({ x, y }) => [
        ...[AREA.x - x, x - AREA.x - AREA.width],
        ...[AREA.y - y, y - AREA.y - AREA.height],
      ]),
  );

test('a view is turned as far as wanted, or until its corners come near the edges', () => {
  fc.assert(
    fc.property(anyView, anyTurn, (view, wanted) => {
      const turn = turnThatFits(view, AREA, wanted);
      expect(beyond(view, turn)).toBeLessThanOrEqual(1e-6);
      expect(Math.abs(turn)).toBeLessThanOrEqual(Math.abs(wanted));
      if (turn) expect(Math.sign(turn)).toBe(Math.sign(wanted));
      expect(Object.is(turn, -0)).toBe(false);
      // Where it is less, a little more room would be used up: its corners are at the very edge.
      if (turn && Math.abs(turn) < Math.abs(wanted))
        expect(beyond(view, turn)).toBeGreaterThan(-0.006 * view.width);
    }),
  );
});

test('a view that was given room can be turned all the way, and keeps its shape', () => {
  fc.assert(
    fc.property(anyView, anyTurn, (view, wanted) => {
      const roomy = roomForTurn(view, AREA, wanted);
      expect(turnThatFits(roomy, AREA, wanted)).toBeCloseTo(wanted, 6);
      expect(roomy.width / roomy.height).toBeCloseTo(16 / 9, 6);
      expect(roomy.width).toBeLessThanOrEqual(view.width + 1e-6);
      // Nothing more is to be done then.
      const again = roomForTurn(roomy, AREA, wanted);
      expect(again.width).toBeCloseTo(roomy.width, 4);
      expect(again.x).toBeCloseTo(roomy.x, 4);
    }),
  );
});

const framing = (more: Partial<Framing>): Framing => ({
  ...{ id: 'f', start: frame(30), end: frame(180), rampIn: frame(30), rampOut: frame(30) },
  ...{ footageId: 'screen', rect: { x: 900, y: 500, width: 960, height: 540 } },
  ...{ endRect: null, pinned: true, reason: '', ...more },
});

test('a ramp turns along, evenly and never so far that the edge is seen', () => {
  const area = { x: 0, y: 0, width: 2560, height: 1440 };
  const framings = [
    framing({ turn: 20 }),
    framing({ id: 'g', start: frame(180), end: frame(300), turn: -6 }),
  ];
  let last = 0;
  for (let n = 0; n <= 320; n++) {
    const { rect, turn } = viewAt(framings, 'screen', area, FRAME, frame(n));
    expect(turnThatFits(rect, area, turn)).toBeCloseTo(turn, 9);
    expect(Math.abs(turn - last)).toBeLessThan(3);
    last = turn;
  }
  const turnAt = (n: number) => viewAt(framings, 'screen', area, FRAME, frame(n)).turn;
  expect([0, 100, 150, 250, 310].map(turnAt)).toEqual([0, 20, 20, -6, 0]);
  // Half way from one to the other, at which both views allow for it.
  expect(turnAt(195)).toBeCloseTo(7, 6);
});

test('turning a framing at the edge brings its views inwards; without a recording it stays', () => {
  const project = emptyProject();
  const rect = { x: 0, y: 0, width: 2560, height: 1440 };
  addSpan(project, 'framings', framing({ rect, endRect: { ...rect }, turn: 10 }));
  makeRoomToTurn(project, { ...SOURCES, footage: {} }, 'f');
  expect(project.framings[0]!.rect).toEqual(rect);
  makeRoomToTurn(project, SOURCES, 'f');
  const [{ rect: roomy, endRect }] = project.framings as [Framing];
  expect(roomy.width).toBeLessThan(2100);
  expect(endRect).toEqual(roomy);
  const { turn } = viewAt(project.framings, 'screen', rect, FRAME, secondsToTicks(3));
  expect(turn).toBeCloseTo(10, 6);
});
