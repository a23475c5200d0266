import { builtInOf, LAYOUTS } from '../layout/built-in';
import fc from 'fast-check';
import { bridgeJoins } from '../telemetry/bridge';
import { pointerAt } from '../telemetry/sample';
import { secondsToTicks } from '../time/ticks';
import { fitClock, type ClockPair } from './clock';
import { drawnAt, liveIds, pointerDuring } from './drawn';
import { liveData, type LivePlace } from './live';
import { pointerTrackOf } from './pointer';
import { readTakeEvents } from './read-events';
import type { TakeEvent } from './take';
import { TrackClock } from './track-clock';

describe('the clock of a device', () => {
  const arrivals = (
    seconds: number,
    rate: number,
    offset: number,
    delays: readonly number[],
  ): ClockPair[] =>
    Array.from({ length: seconds * 4 }, (_, i) => {
      const device = i * 250;
      return { device, arrival: device * rate + offset + delays[i % delays.length]! };
    });

  test('offset and drift are found through delays that only add', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -300e-6, max: 300e-6, noNaN: true }),
        fc.double({ min: -5000, max: 5000, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 80, noNaN: true }), { minLength: 40, maxLength: 90 }),
        (drift, offset, delays) => {
          // Some pieces come without delay, as they do on an idle machine.
          const some = delays.map((d, i) => (i % 7 === 0 ? 0 : d));
          const { offset: found, rate } = fitClock(arrivals(120, 1 + drift, offset, some));
          expect(Math.abs(rate - 1 - drift) * 120_000).toBeLessThan(12);
          expect(Math.abs(found - offset)).toBeLessThan(12);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('over a few seconds drift is not guessed at', () => {
    expect(fitClock(arrivals(5, 1.01, 3, [0, 5])).rate).toBe(1);
    expect(() => fitClock([])).toThrow(RangeError);
  });

  test('a first piece with a time that is far off does not set the clock', () => {
    const clock = new TrackClock();
    clock.note(1800, 10);
    for (let t = 10; t < 200; t += 10) clock.note(t, t + 3 + (t % 4));
    expect(clock.fix()).toBe(true);
    expect(clock.toMain(500)).toBeCloseTo(503, 0);
    expect(clock.fit().offset).toBeCloseTo(0, 0);
    expect(new TrackClock().fix()).toBe(false);
  });

  test('a device whose clock jumps is followed', () => {
    const clock = new TrackClock();
    for (let t = 0; t < 2000; t += 33) clock.note(t + 90_000, t + 5);
    clock.fix();
    expect(clock.toMain(90_000)).toBeCloseTo(5, 0);
    for (let t = 2000; t < 6000; t += 33) clock.note(t + 20_000, t + 5);
    expect(clock.jumps).toBe(1);
    expect(clock.toMain(26_000)).toBeCloseTo(6005, 0);
  });
});

describe('a take’s data', () => {
  test('what a crash left of it is read as far as it goes', () => {
    const text =
      '{"type":"mark","t":10,"name":"a"}\nnot json\n{"type":"pointer","t":"x"}\n[1]\nnull\n{"type":"join","t":20}\n{"type":"pointer","t":30,"x":1';
    expect(readTakeEvents(text).map((e) => e.type)).toEqual(['mark', 'join']);
  });

  const events: TakeEvent[] = [
    { t: 0, type: 'pointer', x: 10, y: 10 },
    { t: 40, type: 'pointer', x: 20, y: 10 },
    { t: 1000, type: 'pointer', x: 400, y: 300 },
    { t: 1010, type: 'down', button: 0 },
    { t: 1080, type: 'up', button: 0 },
    { t: 2000, type: 'join' },
    { t: 2001, type: 'pointer', x: 1800, y: 900 },
  ];

  test('the pointer track begins where the pointer was at the first frame', () => {
    const track = pointerTrackOf(events, { width: 1920, height: 1080 }, 100)!;
    expect(track.inPicture).toBe(false);
    expect(track.samples[0]).toEqual([0, 20, 10]);
    expect(track.events.map((e) => [e.t, e.type])).toEqual([
      [910, 'down'],
      [980, 'up'],
      [1900, 'join'],
    ]);
    expect(
      pointerTrackOf([{ t: 0, type: 'mark', name: '' }], { width: 2, height: 2 }, 0),
    ).toBeNull();
  });

  test('over a join the pointer glides: no step is a jump, and it arrives', () => {
    const track = bridgeJoins(pointerTrackOf(events, { width: 1920, height: 1080 }, 0)!);
    for (let t = 1900; t < 2600; t += 10) {
      const [a, b] = [pointerAt(track, t), pointerAt(track, t + 10)];
      expect(Math.hypot(b.x - a.x, b.y - a.y)).toBeLessThan(100);
    }
    expect(pointerAt(track, 2400)).toEqual({ x: 1800, y: 900 });
    expect(pointerAt(track, 1500).x).toBeLessThan(401);
    // Where the recording shows its own pointer nothing may be moved.
    const shown = { ...track, inPicture: true };
    expect(bridgeJoins(shown)).toBe(shown);
  });
});

describe('what is done live', () => {
  const place: LivePlace = {
    footageId: 'screen',
    area: { x: 0, y: 0, width: 1920, height: 1080 },
    frame: { width: 1920, height: 1080 },
    rate: { num: 30, den: 1 },
    start: secondsToTicks(100),
    from: 200,
    end: secondsToTicks(110),
    hold: null,
  };
  const ids = () => {
    let n = 0;
    return () => `n${++n}`;
  };
  const pen: TakeEvent = {
    t: 1200,
    type: 'stroke',
    id: 'p',
    drawn: { kind: 'stroke', tool: 'pen', width: 6, color: '#c2412d' },
    points: [
      [0, 10, 10],
      [300, 90, 40],
    ],
  };
  const box: TakeEvent = {
    t: 2200,
    type: 'figure',
    id: 'b',
    drawn: {
      kind: 'shape',
      shape: 'box',
      from: { x: 0, y: 0 },
      to: { x: 50, y: 50 },
      width: 6,
      color: '#c2412d',
    },
  };

  test('drawings begin where they were drawn, and end where they were erased or the take ends', () => {
    const { callouts } = liveData([pen, box, { t: 4200, type: 'erase', ids: ['p'] }], place, ids());
    expect(callouts.map((c) => [c.kind, c.start, c.end])).toEqual([
      ['stroke', secondsToTicks(101), secondsToTicks(104)],
      ['box', secondsToTicks(102), secondsToTicks(110)],
    ]);
    const held = liveData([pen, box], { ...place, hold: 2 }, ids()).callouts;
    expect(held[1]!.end).toBe(secondsToTicks(104));
  });

  test('a saved layout that was chosen live counts before the built-in one', () => {
    const own = { ...LAYOUTS.side, name: 'Mine' };
    const data = liveData(
      [
        { t: 0, type: 'layout', kind: 'corner' },
        { t: 1000, type: 'layout', kind: 'corner', own },
        { t: 3000, type: 'layout', kind: 'screen' },
      ],
      place,
      ids(),
    );
    expect(data.layouts.map(({ layout, start, end }) => [layout.name, start, end])).toEqual([
      ['Mine', expect.any(Number), expect.any(Number)],
      [LAYOUTS.screen.name, expect.any(Number), expect.any(Number)],
    ]);
    expect(data.layouts[0]!.end).toBe(data.layouts[1]!.start);
  });

  test('closer views, layouts and marks', () => {
    const data = liveData(
      [
        { t: 0, type: 'layout', kind: 'corner' },
        { t: 1200, type: 'closer', x: 1900, y: 1070, magnification: 2 },
        { t: 3200, type: 'whole' },
        { t: 5200, type: 'layout', kind: 'side' },
        { t: 6200, type: 'layout', kind: 'screen' },
        { t: 7200, type: 'mark', name: 'here' },
        { t: 8200, type: 'join' },
        { t: 999_999, type: 'mark', name: 'after the end' },
      ],
      place,
      ids(),
    );
    expect(data.framings).toHaveLength(1);
    expect(data.framings[0]).toMatchObject({
      start: secondsToTicks(101),
      end: secondsToTicks(103),
      rect: { x: 960, y: 540, width: 960, height: 540 },
    });
    expect(data.layouts.map((l) => [builtInOf(l.layout), l.start, l.end])).toEqual([
      ['side', secondsToTicks(105), secondsToTicks(106)],
      ['screen', secondsToTicks(106), secondsToTicks(110)],
    ]);
    expect(data.markers.map((m) => [m.name, m.time])).toEqual([
      ['here', secondsToTicks(107)],
      ['Pause', secondsToTicks(108)],
      ['after the end', secondsToTicks(110)],
    ]);
    expect(liveData([pen], { ...place, footageId: null }, ids()).callouts).toEqual([]);
  });

  test('the live view shows what the project will', () => {
    const size = { width: 100, height: 60 };
    const [line, ...others] = drawnAt([pen, box], 1300, null, size);
    expect(others).toEqual([]);
    expect(line).toMatchObject({ id: 'p', opacity: 1, mark: { kind: 'lines', width: 6 } });
    expect(
      drawnAt([pen, box, { t: 4000, type: 'erase', ids: ['b'] }], 5000, null, size).map(
        (d) => d.id,
      ),
    ).toEqual(['p']);
    expect(drawnAt([pen, box], 9000, 2, size)).toEqual([]);
    expect(liveIds([pen, box], 5000, null)).toEqual(['p', 'b']);
    expect(pointerDuring([{ t: 5, type: 'pointer', x: 1, y: 2 }], 4)).toBeNull();
  });
});
