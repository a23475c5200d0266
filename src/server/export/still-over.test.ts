import { rmSync, writeFileSync } from 'node:fs';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { UNPOSED } from '@/core/callout/keyframes';
import { pictureAt } from '@/core/callout/kinds/picture';
import { addSpan } from '@/core/edit/spans';
import { secondsToTicks } from '@/core/time/ticks';
import { makeStill } from '../ingest/steps';
import { probeMedia } from '../media/probe';
import { file, makeCounted, taskOf } from '../testing/export';
import { renderStill } from './still';

beforeAll(makeCounted);
afterAll(() => rmSync(file(''), { recursive: true, force: true }));

/** A blue square in the middle of a clear ground. */
function sticker(side: number): string {
  const canvas = createCanvas(side, side);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#0000ff';
  pen.fillRect(side / 4, side / 4, side / 2, side / 2);
  writeFileSync(file('sticker.png'), canvas.toBuffer('image/png'));
  return file('sticker.png');
}

test('a still lies over the recording, see-through where it is so, turned about its middle', async () => {
  const path = sticker(400);
  const { facts } = await probeMedia(path);
  const { signal } = new AbortController();
  await makeStill({ folder: file('.'), original: path, facts, signal, onProgress: () => {} });
  const spot = { at: { x: 640, y: 360 }, size: { width: 1280, height: 720 } };
  const task = await taskOf({ 'counted.mp4': 'screen' }, (project) =>
    addSpan(project, 'callouts', {
      ...pictureAt({ ...spot, frame: spot.size }, 'sticker.png', facts),
      ...{ id: 'c', start: 0, end: secondsToTicks(9), anchor: { to: 'frame' } },
      ...{ ...UNPOSED, pose: { ...UNPOSED.pose, turn: 45, size: 2 } },
    }),
  );
  const known = { ...facts, id: 'sticker.png', name: 'sticker.png', role: 'still' as const };
  const drawn = async (still: string | undefined) => {
    const originals = { ...task.originals, 'sticker.png': { path, facts, still } };
    const footage = { ...task.sources.footage, 'sticker.png': known };
    const png = await renderStill(
      { ...task, originals, sources: { ...task.sources, footage } } as typeof task,
      4,
    );
    const pen = createCanvas(1280, 720).getContext('2d');
    pen.drawImage(await loadImage(png), 0, 0);
    return (x: number, y: number) => [...pen.getImageData(x, y, 1, 1).data].slice(0, 3);
  };
  const [withIt, without] = [await drawn(file('still.png')), await drawn(undefined)];
  const isBlue = ([r, g, b]: number[]) => r! < 40 && g! < 40 && b! > 200;
  // Turned by 45 degrees its corners lie above and beside its middle, √2 times as far as its sides.
  for (const [x, y] of [
    [640, 360],
    [640, 230],
    [770, 360],
  ] as const)
    expect(isBlue(withIt(x, y))).toBe(true);
  for (const [x, y] of [
    [740, 260],
    [640, 190],
  ] as const)
    expect(withIt(x, y)).toEqual(without(x, y));
  // One that can't be read is left out, and the rest is as it is.
  expect(isBlue(without(640, 360))).toBe(false);
});

test('a huge still is brought to a size that every host can hold', async () => {
  const canvas = createCanvas(6000, 30);
  writeFileSync(file('wide.png'), canvas.toBuffer('image/png'));
  const { facts } = await probeMedia(file('wide.png'));
  const { signal } = new AbortController();
  const task = { folder: file('.'), original: file('wide.png'), facts, signal };
  await makeStill({ ...task, onProgress: () => {} });
  const { width, height } = await loadImage(file('still.png'));
  expect([width, height]).toEqual([4096, 20]);
});
