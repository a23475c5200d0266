import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { scratchFolder, startedProcesses } from '../testing/media';
import { PipeReader, PipeWriter, processesGone } from './pipe';

const folder = scratchFolder();
const SIZE = 160 * 120 * 1.5;
const ours = () => readdirSync(tmpdir()).filter((name) => name.startsWith('vistum-pipe-'));

test('pictures come whole, in order, and then there are no more', () => {
  const reader = new PipeReader([
    '-f',
    'lavfi',
    '-i',
    'color=c=gray:s=160x120:r=30:d=0.1',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    'pipe:1',
  ]);
  const bytes = new Uint8Array(SIZE);
  for (let i = 0; i < 3; i++) {
    bytes.fill(0);
    expect(reader.read(bytes)).toBe(true);
    expect(bytes[0]).toBe(bytes[160 * 120 - 1]);
    expect(Math.abs(bytes[0]! - 126)).toBeLessThan(3);
  }
  expect(reader.read(bytes)).toBe(false);
  reader.close();
});

test('why nothing came is said in a sentence, and nothing is left behind', () => {
  const before = ours();
  const reader = new PipeReader(['-i', join(folder, 'not-there.mp4'), '-f', 'rawvideo', 'pipe:1']);
  expect(ours()).toEqual(before);
  expect(reader.read(new Uint8Array(10))).toBe(false);
  expect(reader.whyEmpty().message).toMatch(/no longer where it was/);
  reader.close();
});

test('an encoder that ends early says why', async () => {
  const writer = new PipeWriter([
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    '-s',
    '160x120',
    '-i',
    'pipe:0',
    join(folder, 'no', 'such', 'folder.mp4'),
  ]);
  const fill = () => {
    for (let i = 0; i < 200; i++) writer.write(new Uint8Array(SIZE));
  };
  expect(fill).toThrow(/no longer where it was|ended early/);
  await expect(writer.finish()).rejects.toThrow();
  writer.close();
});

test('processes that were closed are gone for good when that is waited for', async () => {
  await processesGone();
  const before = startedProcesses();
  const readers = Array.from(
    { length: 3 },
    () => new PipeReader(['-f', 'lavfi', '-i', 'testsrc2=s=160x120', '-f', 'rawvideo', 'pipe:1']),
  );
  expect(startedProcesses()).toHaveLength(before.length + 3);
  for (const reader of readers) reader.close();
  await processesGone();
  expect(startedProcesses()).toEqual(before);
});
