import { expect, test, type Locator, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { goTo, openDemo, startExport } from './edit';
import { folder } from './media';

async function openDialog(page: Page): Promise<Locator> {
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  return page.getByRole('dialog', { name: 'Export' });
}

interface Stream {
  readonly codec_name: string;
  readonly width?: number;
  readonly height?: number;
  readonly color_space?: string;
  readonly r_frame_rate: string;
}

/** Waits for the newest export, downloads it, and answers what is in it. */
async function download(
  page: Page,
  name: string,
): Promise<{ streams: Stream[]; seconds: number; bytes: number }> {
  const link = page.getByRole('link', { name: 'Download' }).first();
  await expect(link).toBeVisible({ timeout: 120_000 });
  const [file] = await Promise.all([page.waitForEvent('download'), link.click()]);
  const path = join(folder, name);
  await file.saveAs(path);
  const told = execFileSync('ffprobe', [
    '-v',
    'error',
    '-show_streams',
    '-show_format',
    '-of',
    'json',
    path,
  ]).toString();
  const { streams, format } = JSON.parse(told) as {
    streams: Stream[];
    format: { duration: string; size: string };
  };
  return { streams, seconds: Number(format.duration), bytes: Number(format.size) };
}

test('sizes that soften text are told from those that don’t, any width can be typed, and what was chosen is what comes out', async ({
  page,
}) => {
  await openDemo(page);
  const dialog = await openDialog(page);
  const size = dialog.getByLabel('Size', { exact: true });
  const warning = dialog.getByText('small text gets softer');
  await expect(size).toHaveValue('1920x1080');
  await expect(warning).toHaveCount(0);
  await dialog.getByLabel('For', { exact: true }).selectOption('deck');
  await expect(size).toHaveValue('1280x720');
  await expect(dialog.getByText('scaled by 0.67')).toBeVisible();
  await dialog.getByRole('button', { name: '960×540 px' }).click();
  await expect(size).toHaveValue('960x540');
  await expect(warning).toHaveCount(0);
  await expect(dialog.getByLabel('For', { exact: true })).toHaveValue('own');

  await size.selectOption('other');
  const width = dialog.getByLabel('Width', { exact: true });
  await width.fill('99999');
  await width.press('Enter');
  await expect(width).toHaveValue('7680');
  await width.fill('645');
  await width.press('Enter');
  await expect(width).toHaveValue('646');
  await expect(warning).toBeVisible();

  // A range that makes no sense is said, and nothing is lost of what was chosen.
  await dialog.getByLabel('Format').selectOption('webm');
  await dialog.getByLabel('Frame rate').selectOption('25');
  await dialog.getByLabel('Quality').selectOption('rate');
  await dialog.getByLabel('Bit rate').fill('0.6');
  const [from, to] = [dialog.getByLabel('Range start'), dialog.getByLabel('Range end')];
  await from.fill('soon');
  await dialog.getByRole('button', { name: 'Start export' }).click();
  await expect(dialog.getByText('Type the range as times')).toBeVisible();
  await from.fill('0:22');
  await to.fill('0:20');
  await dialog.getByRole('button', { name: 'Start export' }).click();
  await expect(dialog.getByText('The range ends before it starts')).toBeVisible();
  await from.fill('0:20');
  await to.fill('0:23');
  await startExport(page);
  await expect(page.getByText('646×364 px · 25 fps · 0.6 Mbit/s')).toBeVisible();
  const { streams, seconds, bytes } = await download(page, 'small.webm');
  expect(streams.map((s) => s.codec_name).sort()).toEqual(['opus', 'vp9']);
  expect(streams.find((s) => s.codec_name === 'vp9')).toMatchObject({
    width: 646,
    height: 364,
    color_space: 'bt709',
    r_frame_rate: '25/1',
  });
  expect(seconds).toBeCloseTo(3, 1);
  // The picture's limit, and the sound beside it.
  expect(bytes).toBeLessThan(((0.6 * 1.4 + 0.2) / 8) * 1e6 * 3);
});

test('sound alone has no picture’s settings, a still is the playhead’s, and an export can be stopped', async ({
  page,
}) => {
  const id = await openDemo(page);
  await goTo(page, '30');
  let dialog = await openDialog(page);
  await dialog.getByLabel('Format').selectOption('mp3');
  for (const name of ['Size', 'Frame rate', 'Quality', 'Camera noise reduction'])
    await expect(dialog.getByLabel(name, { exact: true })).toHaveCount(0);
  await dialog.getByLabel('Range end').fill('0:10');
  await startExport(page);
  const sound = await download(page, 'voice.mp3');
  expect(sound.streams.map((s) => s.codec_name)).toEqual(['mp3']);
  expect(sound.seconds).toBeCloseTo(10, 0);
  await expect(page.getByLabel('Glaze firing (copy)', { exact: true })).toHaveJSProperty(
    'tagName',
    'AUDIO',
  );

  await page.goto(`/projects/${id}/edit`);
  await goTo(page, '30');
  dialog = await openDialog(page);
  await dialog.getByLabel('Format').selectOption('png');
  await expect(dialog.getByLabel('Time of the picture')).toHaveAttribute('placeholder', /30/);
  await expect(dialog.getByLabel('Range end')).toHaveCount(0);
  await startExport(page);
  await expect(page.getByText('.png').first()).toBeVisible();
  const picture = page.getByRole('img', { name: 'Glaze firing' });
  await expect(picture).toBeVisible({ timeout: 60_000 });
  expect((await download(page, 'still.png')).streams).toMatchObject([
    { codec_name: 'png', width: 1920, height: 1080 },
  ]);

  // All of it, stopped on the way: it says so, and goes when it is deleted.
  await page.goto(`/projects/${id}/edit`);
  dialog = await openDialog(page);
  await startExport(page);
  await expect(page.getByText(/Frame \d+ of \d+/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Cancel this export' }).click();
  await expect(page.getByText(/cancelled/i)).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('progressbar', { name: 'Export' })).toHaveCount(0);
  const rows = page.getByRole('list', { name: 'Exports' }).getByRole('listitem');
  await expect(rows).toHaveCount(3);
  await page.getByRole('button', { name: 'Delete this export' }).first().click();
  await expect(rows).toHaveCount(2);
});
