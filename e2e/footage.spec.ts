import { expect, test } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, folder } from './media';

test('a new project takes uploads, refuses what it can’t read, and gets a pointer track', async ({ page }) => {
  const screen = join(folder, 'my screen recording.mp4');
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=1600x900:r=25:d=5',
    '-f',
    'lavfi',
    '-i',
    'sine=300:d=5',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    screen,
  );
  const broken = join(folder, 'broken.mp4');
  writeFileSync(broken, 'not a recording\n'.repeat(40));
  const track = join(folder, 'track.csv');
  writeFileSync(track, 'ms,x,y,event\n0,100,100\n1000,400,300,down\n1080,400,300,up\n900,9999,300\n4000,500,300\n');

  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('button', { name: 'Make project' }).click();
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('Give the project a name');
  await page.getByRole('textbox', { name: 'Name' }).fill('Uploads');
  await page.getByLabel('Target').selectOption('deck');
  await page.getByRole('button', { name: 'Make project' }).click();
  await page.getByRole('link', { name: 'Edit', exact: true }).click();
  await expect(page.getByText('Nothing on the timeline yet')).toBeVisible();

  await page.getByRole('tab', { name: 'Footage' }).click();
  await page.getByLabel('Recordings to add').setInputFiles([screen, broken]);
  await expect(page.getByText('not a video, sound or picture file').first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('1600×900 px · 25 fps')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByLabel('Role of my screen recording.mp4')).toHaveValue('screen');

  await page.getByLabel('Pointer track of my screen recording.mp4').setInputFiles(track);
  await expect(page.getByText(/pointer track with 5 positions was attached.*ran backwards.*outside/)).toBeVisible();
  await page.getByRole('button', { name: 'Place my screen recording.mp4 on the timeline' }).click();
  await expect(page.locator('[data-clip]')).toHaveCount(2);
  await page.getByRole('button', { name: 'Halo', exact: true }).click();
  await expect(page.locator('[data-span=pointer]')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Details' }).click();
  await page.getByRole('button', { name: 'Use 1600×900 px' }).click();
  await expect(page.getByRole('combobox', { name: 'Picture' })).toHaveValue('1600x900');

  // Back among the projects: renamed, duplicated, deleted, and the deletion undone.
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.goto('/');
  await page.getByRole('button', { name: 'Rename Uploads' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Uploads of today');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await page.getByRole('button', { name: 'Duplicate Uploads of today' }).click();
  await expect(page.getByRole('link', { name: 'Open Uploads of today (copy)' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete Uploads of today (copy)' }).click();
  await expect(page.getByRole('link', { name: 'Open Uploads of today (copy)' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Open Uploads of today (copy)' })).toBeVisible();
});
