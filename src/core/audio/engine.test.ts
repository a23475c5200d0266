import fc from 'fast-check';
import { counter, demoProject, frame, SOURCES } from '../edit/fixture';
import { addSpan, changeSpan } from '../edit/spans';
import { newLook, pointerSpan, type PointerLook } from '../pointer/model';
import type { PointerTrack } from '../telemetry/pointer-track';
import { ticksToSeconds } from '../time/ticks';
import { SoundEngine, type OpenSound } from './engine';
import { addToMix, SAMPLE_RATE, silence, soundSegments, tameClipping, type Stereo } from './mix';
import { isSilent, planSound } from './plan';
import { Chain, type Processor } from './processor';

/** A recording whose samples say where they are. */
const sampleAt = (footageId: string, at: number): number =>
  at < 0 ? 0 : Math.sin(at * (footageId.length + 1) * 0.013) * 0.4;
const samples = (footageId: string, from: number, count: number): Stereo => {
  const out = silence(count);
  for (let i = 0; i < count; i++) {
    out[0][i] = sampleAt(footageId, from + i);
    out[1][i] = -out[0][i]!;
  }
  return out;
};

let opened: string[] = [];
let closed: string[] = [];
const open = (footageId: string): OpenSound => {
  opened.push(footageId);
  return {
    read: (from, count) => Promise.resolve(samples(footageId, from, count)),
    close: () => void closed.push(footageId),
  };
};
beforeEach(() => {
  opened = [];
  closed = [];
});
const PROJECT = demoProject(counter());

test('the mix is that of all segments in their order, to the bit, in whatever blocks', async () => {
  const at = 60_000;
  const length = 30_000;
  const expected = silence(length);
  for (const segment of soundSegments(PROJECT, SOURCES)) {
    if (segment.start >= at + length || segment.end <= at) continue;
    const from = Math.max(at, segment.start);
    const count = Math.min(at + length, segment.end) - from;
    const sound = samples(segment.footageId, segment.source + from - segment.start, count);
    addToMix(expected, at, segment, sound, from);
  }
  tameClipping(expected);
  for (const block of [length, 7000, 1]) {
    const engine = new SoundEngine(open, 4);
    engine.setPlan(planSound(PROJECT, SOURCES));
    if (block === 1) {
      expect((await engine.mix(at + 99, 1))[0][0]).toBe(expected[0][99]);
      continue;
    }
    for (let done = 0; done < length; done += block) {
      const count = Math.min(block, length - done);
      const out = await engine.mix(at + done, count);
      expect(out[0]).toEqual(expected[0].subarray(done, done + count));
      expect(out[1]).toEqual(expected[1].subarray(done, done + count));
    }
  }
});

test('what is over is closed, what goes on stays open, and a recording that is not there is silent', async () => {
  const engine = new SoundEngine(open, 0);
  const plan = planSound(PROJECT, SOURCES);
  engine.setPlan(plan);
  const ends = plan.lanes.flatMap((l) => l.segments.map((s) => s.end)).sort((a, b) => a - b);
  await engine.mix(ends[0]! - 500, 1000);
  expect(closed).toHaveLength(1);
  const count = opened.length;
  // Another plan of the same clips reads on where it was.
  engine.setPlan(planSound(PROJECT, SOURCES));
  await engine.mix(ends[0]! + 500, 1000);
  expect(opened).toHaveLength(count);
  engine.close();
  expect(closed).toHaveLength(opened.length);
  const deaf = new SoundEngine(() => null, 0);
  deaf.setPlan(plan);
  expect(await deaf.mix(0, 100)).toEqual(silence(100));
  expect(isSilent(planSound({ ...PROJECT, lanes: [] }, SOURCES))).toBe(true);
});

test('presses are heard where a look asks for it, as loud as it says, and only those that are seen', async () => {
  const project = demoProject(counter());
  for (const lane of project.lanes) lane.off = lane.kind !== 'screen';
  const [clip] = project.lanes.find((l) => l.kind === 'screen')!.clips;
  const down = (t: number, confidence = 1) => ({ t, type: 'down' as const, confidence });
  const sources = {
    ...SOURCES,
    pointers: {
      screen: {
        ...{ format: 'vistum-pointer', version: 2, width: 2560, height: 1440 },
        ...{ samples: [[0, 1, 1]], events: [down(1000), down(2000, 0.2), down(9000)] },
      } as PointerTrack,
    },
  };
  const tick = newLook('tick');
  addSpan(project, 'pointer', pointerSpan('p', { start: 0, end: frame(200) }, [tick]));
  const pressed = Math.round((ticksToSeconds(clip!.start) + 1) * SAMPLE_RATE);
  const starts = () =>
    planSound(project, sources)
      .lanes.flatMap(({ segments }) => segments)
      .map(({ start }) => start);
  // Neither the unlikely one nor the one after the span.
  expect(starts()).toEqual([pressed]);
  const peak = async (level: number) => {
    changeSpan(project, 'pointer', 'p', { looks: [{ ...tick, level } as PointerLook] });
    const engine = new SoundEngine(open, 0);
    engine.setPlan(planSound(project, sources));
    const [left] = await engine.mix(pressed - 500, 3000);
    expect(left.subarray(0, 500).every((s) => s === 0)).toBe(true);
    return left.reduce((most, s) => Math.max(most, Math.abs(s)), 0);
  };
  expect((await peak(-6)) / (await peak(-26))).toBeCloseTo(10, 1);
  expect(await peak(-6)).toBeGreaterThan(0.3);
  for (const lane of project.lanes) lane.off = lane.kind === 'screen';
  for (const lane of project.lanes) lane.clips = lane.kind === 'screen' ? lane.clips : [];
  expect(starts()).toEqual([]);
});

/** A moving mean that comes late: what it gives depends on what it heard before. */
function lateMean(length: number, late: number): Processor {
  let heard: number[] = [];
  return {
    latency: late,
    settle: length,
    reset: () => (heard = new Array<number>(length + late).fill(0)),
    process([left, right]) {
      for (let i = 0; i < left.length; i++) {
        heard.push(left[i]!);
        heard.shift();
        const window = heard.slice(0, length);
        left[i] = right[i] = window.reduce((a, b) => a + b, 0) / length;
      }
    },
  };
}

test('a chain gives the same for a stretch after any jump and in any blocks, and nothing comes late', async () => {
  const pull = (at: number, count: number) => Promise.resolve(samples('f', at, count));
  const mean = (at: number, length: number) => {
    let sum = 0;
    for (let i = 0; i < length; i++) sum += Math.fround(sampleAt('f', at - i));
    return sum / length;
  };
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.nat(4000), fc.integer({ min: 1, max: 300 }), fc.boolean()), {
        minLength: 1,
        maxLength: 8,
      }),
      fc.integer({ min: 1, max: 40 }),
      fc.nat(60),
      async (reads, length, late) => {
        const chain = new Chain([lateMean(length, late)], pull);
        let next = 0;
        for (const [jump, count, goesOn] of reads) {
          const at = goesOn ? next : jump;
          const [left] = await chain.read(at, count);
          expect(left).toHaveLength(count);
          for (const i of [0, count >> 1, count - 1])
            expect(left[i]!).toBeCloseTo(mean(at + i, length), 5);
          next = at + count;
        }
      },
    ),
    { numRuns: 60 },
  );
});

test('two processors wait for each other', async () => {
  const pull = (at: number, count: number) => Promise.resolve(samples('f', at, count));
  const run = async (reads: readonly [number, number][]) => {
    const chain = new Chain([lateMean(9, 12), lateMean(5, 3)], pull);
    let out: Stereo = silence(0);
    for (const [at, count] of reads) out = await chain.read(at, count);
    return [...out[0]];
  };
  const alone = await run([[700, 50]]);
  const after = await run([
    [0, 64],
    [64, 636],
    [700, 50],
  ]);
  alone.forEach((value, i) => expect(value).toBeCloseTo(after[i]!, 6));
});
