import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { clips, message } from './edit';
import { ffmpeg, folder, vistum } from './media';
import { openDocument, saved } from './recording';

/** Colours of the picture at places, given as shares of its width and height. */
function colorsAt(png: Buffer, places: readonly (readonly [number, number])[]): number[][] {
  const [w, h] = [160, 90];
  const scale = ['-vf', `scale=${w}:${h}`, '-pix_fmt', 'rgb24', '-f', 'rawvideo', '-'];
  const rgb = execFileSync('ffmpeg', ['-v', 'error', '-i', '-', ...scale], { input: png });
  return places.map(([x, y]) => {
    const at = (Math.round(y * h) * w + Math.round(x * w)) * 3;
    return [...rgb.subarray(at, at + 3)];
  });
}
const shown = async (page: Page, places: readonly (readonly [number, number])[]) =>
  colorsAt(await page.getByTestId('picture').screenshot(), places);

test('a presenter without a wall is found, put before something else, and exported so', async ({
  page,
}) => {
  const camera = join(folder, 'studio.mp4');
  if (!existsSync(camera))
    ffmpeg(
      ...['-ss', '2', '-t', '1.5', '-i', 'demo/media/presenter-take-4.mp4'],
      ...['-vf', 'scale=640:360', '-preset', 'veryfast', camera],
    );
  const { project } = vistum<{ project: string }>('new', '--name', 'Studio', '--size', '640x360');
  vistum('import', project, camera, '--role', 'presenter', '--place');
  await page.goto(`/projects/${project}/edit`);
  await clips(page, 'presenter').click();
  await page.getByRole('button', { name: 'Without a wall: find the person' }).click();
  await expect(page.getByRole('combobox', { name: 'Told by' })).toHaveValue('person');
  const matte = page.getByRole('button', { name: 'Show matte' });
  await expect(matte).toBeEnabled({ timeout: 60_000 });
  await matte.click();
  // Window and shelf are black, face and apron white.
  const places = [
    [0.12, 0.25],
    [0.85, 0.1],
    [0.5, 0.35],
    [0.5, 0.9],
  ] as const;
  await expect
    .poll(async () => (await shown(page, places)).map(([r]) => r! > 128))
    .toEqual([false, false, true, true]);
  await page.getByRole('button', { name: 'Back to the Picture' }).click();
  await page.getByRole('button', { name: 'Find the face' }).click();
  await expect(page.getByText('Stop looking')).toBeHidden();
  await expect
    .poll(async () => (await openDocument(page, project)).project.presenter.crop)
    .toBeLessThan(0.7);
  await page.getByRole('button', { name: 'Follow the face' }).click();
  await expect(message(page, /^The face stays near one place/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Shape' }).selectOption('squircle');
  await page.getByRole('combobox', { name: 'Behind them' }).selectOption('blur');
  await page.getByRole('button', { name: 'Grade the key here' }).click();
  await expect(page.getByLabel('Grade of the key')).toContainText('Holes in the presenter');
  await saved(page);
  const { presenter, keys } = (await openDocument(page, project)).project;
  expect(presenter).toMatchObject({ shape: 'squircle', backdrop: { blur: 0.04 } });
  expect(keys[0]).toMatchObject({ on: true, method: 'person' });
  await page.keyboard.press('Escape');
  await page.getByTestId('picture').click({ position: { x: 20, y: 20 } });
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await openDocument(page, project)).project.presenter).toMatchObject({
    ...{ shape: 'circle', backdrop: '#e3eef2' },
  });

  // The exported file shows the same: the fill where the room was, within the circle.
  const file = join(folder, 'studio-export.mp4');
  vistum('export', project, '--out', file, '--size', '640x360', '--range', '0-0.5');
  const frame = ffmpeg('-i', file, '-frames:v', '1', '-f', 'image2', '-c:v', 'png', '-');
  const { corner, size, margin } = presenter;
  expect([corner, size, margin]).toEqual(['bottom-right', 0.3, 0.035]);
  // The circle's middle, from the picture's size and the distance to its edges.
  const [cx, cy] = [1 - (0.035 + 0.15) * (9 / 16), 1 - 0.035 - 0.15];
  const [face, ...around] = colorsAt(frame, [
    [cx, cy],
    [cx - 0.047, cy - 0.085],
    [cx - 0.058, cy - 0.06],
    [cx + 0.047, cy - 0.085],
  ]) as [number[], ...number[][]];
  expect(face[0]).toBeGreaterThan(face[2]! + 20);
  // Hair may reach to some of these.
  const isFill = (color: number[]) =>
    [0xe3, 0xee, 0xf2].every((c, i) => Math.abs(color[i]! - c) < 24);
  expect(around.some(isFill)).toBe(true);
});

test('a key whose matte is not made yet says so, and so does its export', async ({ page }) => {
  const { project } = vistum<{ project: string }>('new', '--name', 'Later', '--size', '640x360');
  const camera = 'demo/media/presenter-take-4.mp4';
  const { footage } = vistum<{ footage: string }>(
    ...(['import', project, camera, '--role', 'presenter', '--place'] as const),
  );
  const change = { on: true, method: 'shot' };
  vistum('edit', project, 'change-key', '--args', JSON.stringify({ footageId: footage, change }));
  await page.goto(`/projects/${project}/edit`);
  await clips(page, 'presenter').click();
  await expect(page.getByText('Mark In and Out where only the background is seen.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Show matte' })).toBeDisabled();
  await page.getByRole('button', { name: 'Take it from In to Out' }).click();
  await expect(message(page, /Mark In and Out on the timeline where this/)).toBeVisible();
  // Making one can be stopped, and begun again.
  await page.getByRole('combobox', { name: 'Told by' }).selectOption('person');
  await page.getByRole('button', { name: /^Stop \(/ }).click();
  await expect(page.getByRole('button', { name: 'Take it out' })).toBeVisible();
  await saved(page);
  expect(() =>
    vistum('export', project, '--out', join(folder, 'later.mp4'), '--size', '640x360'),
  ).toThrow();
});
