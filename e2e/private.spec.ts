import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import type { PrivateData } from '@/contract/analyses';
import type { Project } from '@/core/project/model';
import { ffmpeg, folder, vistum } from './media';
import { saved } from './recording';

const recording = join(folder, 'orders.mp4');

/** A page of orders, scrolled down by 120 pixels in its middle. */
async function makeOrders(page: Page): Promise<void> {
  // The last of them is seen once the page is scrolled.
  const names: Record<number, string> = { 3: 'Oona Feld', 8: 'Ilse Varga', 15: 'Piet Anders' };
  const rows = Array.from({ length: 24 }, (_, i) => {
    const name = names[i] ?? `Batch ${i}`;
    const mail = names[i] ? `${name.toLowerCase().replace(' ', '.')}@kilnbook.example` : 'open';
    return `<tr><td>${2000 + i * 7}<td>${name}<td>${mail}<td>${i === 5 ? '+00 555 0109' : `Cone ${i % 9}`}</tr>`;
  });
  await page.setViewportSize({ width: 960, height: 1100 });
  await page.setContent(
    `<style>body { margin: 0; font: 17px/1.5 sans-serif; background: #fbfaf7 }
     td { padding: 8px 24px; border-bottom: 1px solid #ddd6c8 }</style><table>${rows.join('')}</table>`,
  );
  const still = join(folder, 'orders.png');
  await page.screenshot({ path: still });
  ffmpeg(
    ...['-loop', '1', '-framerate', '30', '-t', '3', '-i', still],
    ...['-vf', "crop=960:540:0:'120*clip((n-40)/15,0,1)'", '-pix_fmt', 'yuv420p', '-crf', '22'],
    recording,
  );
}

test('private data is found, taken or left, covered for as long as it is seen, and unreadable', async ({
  page,
}) => {
  await makeOrders(page);
  await page.setViewportSize({ width: 1280, height: 800 });
  const { project } = vistum<{ project: string }>('new', '--name', 'Orders', '--size', '960x540');
  const { footage } = vistum<{ footage: string }>(
    ...['import', project, recording, '--role', 'screen', '--place'],
  );
  await page.goto(`/projects/${project}/edit`);
  await page.getByRole('button', { name: 'Commands' }).click();
  await page.keyboard.type('Find private data');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: /Your own words/ }).fill('Batch 7');
  await page.getByRole('textbox', { name: /Your own words/ }).blur();
  await page.getByRole('button', { name: 'Look for private data' }).click();
  await expect(page.getByText('5 of 5 found can be seen in the video.')).toBeVisible({
    timeout: 60_000,
  });
  // Three addresses, of which two are seen at first, a number and a word.
  await expect(page.getByRole('checkbox', { name: 'Mail address: 3' })).toBeChecked();
  await expect(page.getByTestId('private-mark')).toHaveCount(4);
  await page.getByRole('checkbox', { name: 'Phone number: 1' }).uncheck();
  await expect(page.getByRole('button', { name: 'Cover these 4' })).toBeVisible();

  await page.getByRole('button', { name: 'Cover these 4' }).click();
  await expect(page.getByText(/Looking where/)).toBeVisible();
  await expect(page.getByText('1 of 5 found can be seen in the video.')).toBeVisible({
    timeout: 90_000,
  });
  await expect(page.getByTestId('private-mark')).toHaveCount(1);
  await saved(page);

  // The exported file is read anew: what is covered is not to be found in it.
  const covered = join(folder, 'orders-covered.mp4');
  vistum('export', project, '--out', covered);
  const { footage: made } = vistum<{ footage: string }>(
    ...['import', project, covered, '--role', 'screen'],
  );
  const read = vistum<PrivateData>('private', project, made, '--words', 'Batch 7');
  expect(read.found.map(({ kind }) => kind)).toEqual(['phone']);
  const own = vistum<PrivateData>('private', project, footage, '--words', 'Batch 7');
  expect(own.found).toHaveLength(5);

  // Each of them is a cover like any other, and goes by undoing.
  const before = vistum<Project>('show', project).callouts.length;
  expect(before).toBe(4);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  await expect(page.getByTestId('private-mark')).toHaveCount(4);
});
