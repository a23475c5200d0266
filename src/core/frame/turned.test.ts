import fc from 'fast-check';
import { UNPOSED } from '../callout/keyframes';
import { USUAL_MOTION } from '../callout/motion';
import { moveOf } from '../callout/moved';
import { kindOf } from '../callout/kinds';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { addSpan, setLayout } from '../edit/spans';
import { LAYOUTS } from '../layout/built-in';
import type { Callout, Project } from '../project/model';
import { cornersOf, isWithin, middleOf, rectAround, turnedAbout, type Rect } from '../scale/rect';
import { sceneAt, screenIn, uprightOf } from '../scene/scene';
import { secondsToTicks } from '../time/ticks';
import { calloutScene } from './callout-layers';
import { everyVideoLayer, type TurnedLayer } from './plan';
import { planFrame } from './plan-frame';
import { readScale } from './reading';

const at = secondsToTicks;
const OUTPUT = { width: 1920, height: 1080 };

/** A screen that is seen turned between its seconds 2 and 12. */
function turnedBy(turn: number, more: (project: Project) => void = () => {}): Project {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.screen!, 0, counter());
  addSpan(project, 'framings', {
    ...{ id: 'f', start: at(2), end: at(12), rampIn: at(1), rampOut: at(1), footageId: 'screen' },
    ...{ rect: { x: 700, y: 400, width: 1280, height: 720 }, endRect: null, turn },
    ...{ pinned: true, reason: '' },
  });
  more(project);
  return project;
}

const cover = (rect: Rect, footageId: string | null) =>
  ({
    ...{ id: 'c', kind: 'cover', way: 'solid', color: '#1e2a32', strength: 24, rect },
    ...{ start: 0, end: at(20), ...UNPOSED },
    anchor: footageId ? { to: 'footage', footageId } : { to: 'frame' },
  }) as unknown as Callout;

const turnedLayer = (project: Project, time: number): TurnedLayer => {
  const found = planFrame(project, SOURCES, at(time), OUTPUT).layers.find(
    ({ kind }) => kind === 'turned',
  );
  expect(found).toBeDefined();
  return found as TurnedLayer;
};

const coordinate = fc.double({ min: -500, max: 3000, noNaN: true });
const anyTurn = fc.integer({ min: -30, max: 30 });

test('points go there and back, and are where the upright picture has them once it is turned', () => {
  fc.assert(
    fc.property(anyTurn, coordinate, coordinate, (turn, x, y) => {
      const scene = sceneAt(turnedBy(turn), SOURCES, at(6), OUTPUT);
      const screen = screenIn(scene)!;
      expect(screen.turn).toBe(turn);
      const there = screen.toOutput({ x, y });
      const back = screen.toFootage(there);
      expect(back.x).toBeCloseTo(x, 6);
      expect(back.y).toBeCloseTo(y, 6);
      const upright = uprightOf(scene, screen).screen;
      const drawn = upright.toOutput({ x, y });
      const middle = middleOf(upright.stage);
      const seen = turnedAbout(drawn, middle, turn);
      const about = middleOf(screen.stage);
      expect(seen.x - middle.x + about.x).toBeCloseTo(there.x, 6);
      expect(seen.y - middle.y + about.y).toBeCloseTo(there.y, 6);
    }),
  );
});

test('what is not turned is drawn as ever, and a turn is one picture that fills its place', () => {
  const still = planFrame(turnedBy(0), SOURCES, at(6), OUTPUT);
  expect(still.layers.map(({ kind }) => kind)).toEqual(['video']);
  const exact = (turn: number) => {
    const project = turnedBy(turn);
    project.framings[0]!.rect = { x: 320, y: 180, width: 1920, height: 1080 };
    return readScale(project, SOURCES, at(6))!.sharpness;
  };
  expect([0, 5].map(exact)).toEqual(['exact', 'sharp']);
  const layer = turnedLayer(turnedBy(12), 6);
  expect(layer.destination).toEqual({ x: 0, y: 0, ...OUTPUT });
  // All that can be seen of it is drawn.
  const corners = cornersOf(layer.destination).map((corner) =>
    turnedAbout(corner, layer.about, -layer.turn),
  );
  const needed = rectAround(corners);
  expect(needed.width).toBeLessThanOrEqual(layer.size.width);
  expect(needed.height).toBeLessThanOrEqual(layer.size.height);
  const [video] = everyVideoLayer([layer]);
  expect(video!.destination).toEqual({ x: 0, y: 0, ...layer.size });
  expect(video!.source.width / layer.size.width).toBeCloseTo(1280 / 1920, 3);
});

test('a screen with round corners is turned within them', () => {
  const project = turnedBy(12);
  const screen = { ...LAYOUTS.side.screen!, rounding: 0.1, ring: { width: 6, color: '#c2412d' } };
  placeFootage(project, SOURCES.footage.camera!, 0, counter());
  setLayout(project, { start: 0, end: at(20) }, { ...LAYOUTS.side, screen }, counter());
  const { mask, destination } = turnedLayer(project, 6);
  expect(mask?.shape).toBe('rounded');
  const { layers } = planFrame(project, SOURCES, at(6), OUTPUT);
  const ring = layers.find((l) => l.kind === 'drawing' && l.mark.kind === 'outline');
  expect(ring).toBeDefined();
  const here = screenIn(sceneAt(project, SOURCES, at(6), OUTPUT))!;
  expect(isWithin(destination, { ...here.stage, width: here.stage.width + 2 })).toBe(true);
});

test('covers turn with what they hide; those on the frame hide it in lenses too', () => {
  const rect = { x: 1200, y: 700, width: 200, height: 60 };
  const { layers } = turnedLayer(
    turnedBy(12, (p) => addSpan(p, 'callouts', cover(rect, 'screen'))),
    6,
  );
  const region = layers.find(({ kind }) => kind === 'region');
  expect(region).toMatchObject({ effect: { kind: 'solid' } });

  const onFrame = { x: 900, y: 500, width: 120, height: 80 };
  const project = turnedBy(12, (p) => {
    addSpan(p, 'callouts', cover(onFrame, null));
    addSpan(p, 'callouts', {
      ...{ id: 'lens', kind: 'lens', start: 0, end: at(20), ...UNPOSED, ...USUAL_MOTION },
      ...{ anchor: { to: 'footage', footageId: 'screen' }, power: 1.5, sharp: false },
      ...{ rect: { x: 1230, y: 680, width: 240, height: 160 }, offset: { dx: 300, dy: 260 } },
      ...{ shape: 'rounded', color: '#1e2a32', line: 4 },
    });
  });
  const scene = sceneAt(project, SOURCES, at(6), OUTPUT);
  const screen = screenIn(scene)!;
  const inside = turnedLayer(project, 6).layers;
  const lens = everyVideoLayer(inside).find(({ mask }) => mask)!;
  const hidden = inside.find((l) => l.kind === 'region');
  // Every corner of what the frame's cover hides lies under the cover in the lens.
  expect(lens).toBeDefined();
  const scale = lens.destination.width / lens.source.width;
  let seen = 0;
  for (const corner of cornersOf(onFrame)) {
    const { x, y } = screen.toFootage(corner);
    const inLens = {
      x: lens.destination.x + (x - lens.source.x) * scale,
      y: lens.destination.y + (y - lens.source.y) * scale,
    };
    const { destination: d } = lens;
    const isSeen =
      inLens.x > d.x && inLens.x < d.x + d.width && inLens.y > d.y && inLens.y < d.y + d.height;
    if (!isSeen) continue;
    seen++;
    expect(hidden).toBeDefined();
    const { area } = hidden as { area: typeof d };
    expect(isWithin({ ...inLens, width: 0, height: 0 }, area)).toBe(true);
  }
  expect(seen).toBeGreaterThan(1);
});

test('a callout is moved as far as the hand, however what it stands on is turned', () => {
  fc.assert(
    fc.property(anyTurn, coordinate, coordinate, fc.integer({ min: -90, max: 90 }), (...drawn) => {
      const [turn, dx, dy, own] = drawn;
      const rect = { x: 1200, y: 700, width: 200, height: 60 };
      const callout = {
        ...cover(rect, 'screen'),
        ...{ kind: 'highlight', style: 'box', line: 4, fill: 0, turn: own },
      } as unknown as Callout & { rect: typeof rect };
      const scene = sceneAt(turnedBy(turn), SOURCES, at(6), OUTPUT);
      const on = calloutScene(scene, callout)!;
      const [first] = kindOf(callout).handles(callout);
      const { by } = moveOf(callout, first!.id, on, { dx, dy });
      const moved = { ...callout, rect: { ...rect, x: rect.x + by.dx, y: rect.y + by.dy } };
      const then = calloutScene(scene, moved)!;
      const [from, to] = [on.toOutput(rect), then.toOutput(moved.rect)];
      expect(to.x - from.x).toBeCloseTo(dx, 4);
      expect(to.y - from.y).toBeCloseTo(dy, 4);
    }),
    { numRuns: 60 },
  );
});
