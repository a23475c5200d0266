import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { makePointed } from '../src/server/testing/pointed';
import { clips, command, goTo, message } from './edit';
import { vistum } from './media';
import { newProject, openDocument, saved } from './recording';

const folder = mkdtempSync(join(tmpdir(), 'vistum-sight-'));
const recording = join(folder, 'bookings.mp4');
test.beforeAll(() => makePointed(recording, 12));

test('a recording without a track: its pointer is found, framings are planned, a halo follows, it is exported', async ({
  page,
}) => {
  const id = await newProject(page, 'Bookings');
  await page.goto(`/projects/${id}/edit`);
  await page.getByRole('tab', { name: 'Footage', exact: true }).click();
  await page.getByLabel('Recordings to add').setInputFiles(recording);
  await expect(page.getByText('960×540 px').first()).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'bookings.mp4', exact: true }).click();
  await page.getByLabel('Role of bookings.mp4').selectOption('screen');
  await expect(clips(page, 'screen')).toHaveCount(1);

  // Nothing is known yet, and it is said what to do.
  await command(page, 'Plan framings');
  await expect(page.getByText(/Press “Find the pointer”/).first()).toBeVisible();
  await page.getByRole('tab', { name: 'Footage', exact: true }).click();
  await page.getByRole('button', { name: 'Find the pointer' }).click();
  await expect(page.getByRole('button', { name: 'Stop looking' })).toBeVisible();
  await expect(
    page.getByText(/Pointer found in (9\d|100) % of it, 1 press inferred\./),
  ).toBeVisible({
    timeout: 90_000,
  });

  await command(page, 'Plan framings');
  await expect(page.getByRole('button', { name: 'Plan again' })).toBeEnabled();
  await command(page, 'Halo');
  await saved(page);
  const { project } = await openDocument(page, id);
  expect(project.pointer).toHaveLength(1);

  // From one place that is sure, a stretch is looked for once more.
  await page.getByRole('tab', { name: 'Footage', exact: true }).click();
  await page
    .getByRole('button', { name: /^bookings.mp4/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Mend the pointer’s path' }).click();
  await goTo(page, '6');
  await page.getByRole('button', { name: 'Find it from here' }).click();
  await expect(message(page, /was found again for 2\.0 s/)).toBeVisible({ timeout: 90_000 });
  await saved(page);
  const { corrections } = (await openDocument(page, id)).project;
  expect(corrections.map(({ made }) => made.map(({ kind }) => kind))).toEqual([['path']]);
  const out = join(folder, 'out.mp4');
  const done = vistum<{ frames: number }>('export', id, '--out', out, '--size', '640x360');
  expect(done.frames).toBe(12 * 30);
});
