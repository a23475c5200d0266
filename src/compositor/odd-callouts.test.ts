import { createCanvas } from '@napi-rs/canvas';
import type { TSchema } from '@sinclair/typebox';
import { kindOf } from '@/core/callout/kinds';
import { made, NAMES, withCallout } from '@/core/callout/testing';
import { SOURCES } from '@/core/edit/fixture';
import { planFrame } from '@/core/frame/plan-frame';
import type { Callout } from '@/core/project/model';
import { checkOf } from '@/core/schema/check';
import { secondsToTicks } from '@/core/time/ticks';
import { frameAtAddress, planarSize } from '@/kernels/planar';
import { testHeap } from '@/kernels/testing';
import { Compositor } from './compositor';
import type { Rasterizer } from './rasterizer';
import { plainRasterizer, solidFrame } from './testing';

/*
 * Callouts as no one would make them by hand, but a slip, a script or an old document may: each
 * number at both ends of what its schema allows, or far beyond the picture where it allows all;
 * nothing wide and nothing high; texts as long as they may be. All of them are drawn, none
 * writes outside of the picture.
 */

const FAR = 1e6;
const OUTPUT = { width: 320, height: 180 };
/** As many characters as a text may have. */
const MANY = 2000;
const LONG_TEXTS = [
  'x'.repeat(MANY),
  'some words '.repeat(MANY / 11),
  '👩🏽‍💻🏳️‍🌈'.repeat(MANY / 12),
  'שלום עולם, '.repeat(MANY / 11),
  '屏幕录像'.repeat(MANY / 4),
  '\n'.repeat(MANY),
  'e' + '\u0301'.repeat(MANY - 1),
];

type Values = Record<string, unknown>;

/** Copies of a value in each of which one number is at an end of what a schema allows. */
function* oddNumbers(schema: TSchema, value: unknown): Generator<unknown> {
  if (typeof value === 'number') {
    const { minimum = -FAR, maximum = FAR } = schema as { minimum?: number; maximum?: number };
    yield* [minimum, maximum].filter((end) => end !== value);
    return;
  }
  if (Array.isArray(value)) {
    const items = schema.items as TSchema | TSchema[];
    for (let i = 0; i < Math.min(4, value.length); i++)
      for (const odd of oddNumbers(Array.isArray(items) ? items[i]! : items, value[i]))
        yield value.with(i, odd);
    return;
  }
  const properties = schema.properties as Record<string, TSchema> | undefined;
  if (!properties || !value || typeof value !== 'object') return;
  for (const [name, of] of Object.entries(properties))
    for (const odd of oddNumbers(of, (value as Values)[name])) yield { ...value, [name]: odd };
}

/** A callout with both its points, or all of its sides, at one spot. */
function* withoutSize(callout: Values): Generator<unknown> {
  if ('from' in callout) yield { ...callout, to: callout.from };
  if ('rect' in callout)
    yield { ...callout, rect: { ...(callout.rect as object), width: 2, height: 2 } };
}

function* oddOnes(callout: Callout): Generator<Callout> {
  const { schema } = kindOf(callout);
  const { id, start, end, ...rest } = callout as unknown as Values;
  const odd = [...oddNumbers(schema, rest), ...withoutSize(rest)] as Values[];
  if ('text' in callout) odd.push(...LONG_TEXTS.map((text) => ({ ...rest, text })));
  const pose = { ...callout.pose, size: 10 };
  if ('text' in callout) odd.push(...LONG_TEXTS.map((text) => ({ ...rest, text, pose })));
  if ('rect' in callout)
    odd.push({ ...rest, rect: { ...callout.rect, width: FAR, height: FAR }, pose });
  for (const one of odd) yield { ...one, id, start, end } as unknown as Callout;
}

/** One that has every still of the footage. */
const rasterizer: Rasterizer = {
  ...plainRasterizer,
  still: () => ({ image: createCanvas(64, 48) as never, width: 64, height: 48 }),
};

/** Bytes on either side of the target, so that what is written there is seen. */
const GUARD = 4096;
/** Kernels that take several samples at a time may touch so many bytes behind a plane. */
const SLACK = 64;
const MARK = 0xa5;

test.each(NAMES)('a %s is drawn whatever its numbers and words are', async (kind) => {
  const check = checkOf(kindOf({ kind }).schema);
  // What a compositor keeps of sprites stays with its memory.
  const heap = await testHeap();
  const picture = solidFrame(heap, '#f4f1ea', { width: 640, height: 360 });
  const compositor = new Compositor(heap, rasterizer);
  const size = planarSize(OUTPUT.width, OUTPUT.height);
  const at = heap.allocate(size + 2 * GUARD);
  const target = frameAtAddress(at + GUARD, OUTPUT.width, OUTPUT.height);
  heap.bytes(at, size + 2 * GUARD).fill(MARK);
  let drawn = 0;
  for (const odd of oddOnes(made(kind))) {
    // What the schema refuses never gets into a document.
    if (!('value' in check(odd))) continue;
    const project = withCallout(odd);
    for (const seconds of [0.1, 4]) {
      const plan = planFrame(project, SOURCES, secondsToTicks(seconds), OUTPUT);
      compositor.compose(plan, () => ({ picture, part: null, before: null, marks: null }), target);
    }
    const around = [heap.bytes(at, GUARD), heap.bytes(at + GUARD + size + SLACK, GUARD - SLACK)];
    expect(around.every((bytes) => bytes.every((byte) => byte === MARK))).toBe(true);
    drawn++;
  }
  expect(drawn).toBeGreaterThan(3);
});
