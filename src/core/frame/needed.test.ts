import fc from 'fast-check';
import { PLAIN_VIDEO, type FramePlan, type VideoLayer } from './plan';
import { neededParts } from './needed';

const footage = { width: 2560, height: 1440 };
const video = (more: Partial<VideoLayer>): VideoLayer => ({
  kind: 'video',
  clipId: 'c',
  footageId: 'f',
  time: 0,
  speed: 1,
  footage,
  source: { x: 0, y: 0, ...footage },
  destination: { x: 0, y: 0, width: 1920, height: 1080 },
  ...PLAIN_VIDEO,
  ...more,
});
const plan = (...layers: FramePlan['layers']): FramePlan => ({
  size: { width: 1920, height: 1080 },
  background: '#000000',
  layers,
});

test('what is needed holds every source with room for the filters, lies within the footage, and stands on even pixels', () => {
  const source = fc
    .record({
      x: fc.double({ min: 0, max: 2000, noNaN: true }),
      y: fc.double({ min: 0, max: 1200, noNaN: true }),
      width: fc.double({ min: 20, max: 500, noNaN: true }),
    })
    .map(({ x, y, width }) => ({ x, y, width, height: Math.min(width * 0.5625, 1440 - y) }));
  fc.assert(
    fc.property(fc.array(source, { minLength: 1, maxLength: 4 }), (sources) => {
      const part = neededParts(sources.map((s) => plan(video({ source: s })))).get('c');
      // Where nearly all is needed all is taken.
      if (!part) return;
      for (const side of [part.x, part.y, part.width, part.height]) expect(side % 2).toBe(0);
      expect(
        part.x >= 0 &&
          part.y >= 0 &&
          part.x + part.width <= footage.width &&
          part.y + part.height <= footage.height,
      ).toBe(true);
      for (const { x, y, width, height } of sources) {
        const stretch = Math.max(1, width / 1920);
        const reach = 4 * stretch + 1;
        expect(part.x).toBeLessThanOrEqual(Math.max(0, x - reach));
        expect(part.y).toBeLessThanOrEqual(Math.max(0, y - reach));
        expect(part.x + part.width).toBeGreaterThanOrEqual(
          Math.min(footage.width, x + width + reach),
        );
        expect(part.y + part.height).toBeGreaterThanOrEqual(
          Math.min(footage.height, y + height + reach),
        );
      }
    }),
  );
});

test('a clip that is drawn twice, or inside of a transition, gets what all of its places need', () => {
  const [left, right] = [
    { x: 100, y: 100, width: 200, height: 100 },
    { x: 1400, y: 900, width: 200, height: 100 },
  ];
  const mixed = plan(video({ source: left }), {
    kind: 'mix',
    from: [],
    to: [video({ source: right })],
    amount: 0.5,
    motion: null,
  });
  const part = neededParts([mixed]).get('c')!;
  expect(part.x).toBeLessThanOrEqual(100);
  expect(part.x + part.width).toBeGreaterThanOrEqual(1600);
  expect(part.y + part.height).toBeGreaterThanOrEqual(1000);
});

test('the whole view, and footage with odd sides, is decoded whole', () => {
  expect(neededParts([plan(video({}))]).size).toBe(0);
  const odd = { width: 1023, height: 577 };
  expect(
    neededParts([plan(video({ footage: odd, source: { x: 10, y: 10, width: 50, height: 50 } }))])
      .size,
  ).toBe(0);
});
