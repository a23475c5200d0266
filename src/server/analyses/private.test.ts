import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { ffmpeg, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import type { PrivateData } from '@/contract/analyses';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { addFootage } from '../footage/add';
import { completeJob } from '../jobs/complete';
import { wordsIn } from '../media/read-text';
import { newProject } from '../projects';
import { listAnalyses, readResult } from './analyses';
import { requestPrivate } from './request-private';

const never = new AbortController().signal;
let context: ServerContext;
let projectId = '';
let footageId = '';
beforeAll(async () => {
  const pages = [
    ['Members of the studio', 'Ilse Varga', 'ilse.varga@kilnbook.example', 'Since 2026-03-14'],
    ['Firing', 'Ramp 120 an hour', 'Order 20481', 'Call +00 555 0109'],
  ];
  pages.forEach((lines, i) => {
    const canvas = createCanvas(640, 360);
    const pen = canvas.getContext('2d');
    pen.fillStyle = '#f6f5f1';
    pen.fillRect(0, 0, 640, 360);
    pen.fillStyle = '#26303a';
    pen.font = '17px sans-serif';
    lines.forEach((line, row) => pen.fillText(line, 60, 80 + row * 48));
    writeFileSync(join(folder, `page-${i}.png`), canvas.toBuffer('image/png'));
  });
  const file = join(folder, 'pages.mp4');
  ffmpeg(
    ...['-framerate', '0.5', '-i', join(folder, 'page-%d.png'), '-r', '25'],
    ...['-pix_fmt', 'yuv420p', file],
  );
  context = await localContext();
  projectId = await newProject(context, 'Private', 640, 360, { num: 25, den: 1 });
  const added = await addFootage(context, {
    ...{ projectId, path: file, name: 'pages.mp4', role: 'screen', take: false },
  });
  await completeJob(context, added.jobId, never);
  footageId = added.footageId;
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

async function found(words?: string[]): Promise<string> {
  const { id, jobId } = await requestPrivate(context, footageId, words);
  if (jobId) await completeJob(context, jobId, never);
  return String(await readResult(context, id));
}

test('what a recording shows is read, and told by when and where and a hint alone', async () => {
  const text = await found();
  expect(text).not.toContain('kilnbook');
  const data = JSON.parse(text) as PrivateData;
  expect(data).toMatchObject({ width: 640, height: 360, length: 4000 });
  expect(data.found.map(({ kind }) => kind)).toEqual(['email', 'phone']);
  const [mail, phone] = data.found.map(({ stretches }) => stretches[0]!);
  expect(mail).toMatchObject({ from: 0, to: 2000 });
  expect(phone).toMatchObject({ from: 2000 });
  expect(Math.abs(mail!.rect.x - 60)).toBeLessThan(4);
  expect(mail!.rect.y).toBeGreaterThan(155);
  expect(mail!.rect.y + mail!.rect.height).toBeLessThan(190);
  const rows = await listAnalyses(context, projectId);
  expect(rows.find(({ kind }) => kind === 'private')).toMatchObject({
    ...{ status: 'ready', summary: { found: 2 } },
  });
});

test('words of one’s own are found beside it; the same words in another order are the same', async () => {
  const data = JSON.parse(await found(['ilse varga', ' Ramp '])) as PrivateData;
  expect(data.found.filter(({ kind }) => kind === 'word')).toHaveLength(2);
  const again = await requestPrivate(context, footageId, ['Ramp', 'ilse varga', '']);
  expect(again).toMatchObject({ status: 'ready', jobId: null });
});

test('the table that Tesseract answers is read by its words, smaller again', () => {
  const table = [
    'level\tpage_num\tblock_num\tpar_num\tline_num\tword_num\tleft\ttop\twidth\theight\tconf\ttext',
    '4\t1\t1\t1\t1\t0\t42\t26\t208\t16\t-1\t',
    '5\t1\t1\t1\t1\t1\t42\t26\t82\t16\t90.24\tKilnbook',
    '5\t1\t1\t1\t1\t2\t130\t36\t22\t2\t12\t \t',
    '5\t1',
  ].join('\n');
  expect(wordsIn(table, 2)).toEqual([
    { text: 'Kilnbook', rect: { x: 21, y: 13, width: 41, height: 8 }, confidence: 0.9024 },
  ]);
});
