import { expect, test } from '@playwright/test';
import { WHOLE_CHROMIUM } from '../scripts/chromium.mjs';
import { TICKS_PER_SECOND } from '../src/core/time/ticks';
import { keep, newProject, noCountdown, openDocument, record, saved } from './recording';

test.use({
  launchOptions: {
    ...WHOLE_CHROMIUM,
    args: [
      ...WHOLE_CHROMIUM.args,
      '--use-fake-device-for-media-stream',
      '--auto-accept-this-tab-capture',
    ],
  },
  permissions: ['camera', 'microphone'],
});

test('this tab, a camera and a microphone are recorded together', async ({ page }) => {
  await noCountdown(page);
  const id = await newProject(page, 'Real devices');
  await page.goto(`/projects/${id}/record`);
  await page.getByLabel('Camera', { exact: true }).selectOption({ index: 1 });
  await page.getByLabel('Microphone', { exact: true }).selectOption({ index: 1 });
  await page.getByLabel('Screen', { exact: true }).selectOption('own');
  for (const name of ['Screen', 'Camera', 'Microphone'])
    await expect(page.getByLabel(`${name} state`)).toContainText('ready', { timeout: 20_000 });
  await record(page, () => page.waitForTimeout(3500));
  await keep(page);
  await saved(page);
  const { project } = await openDocument(page, id);
  const clips = project.lanes.flatMap((l) => l.clips.map((c) => ({ kind: l.kind, ...c })));
  expect(clips.map((c) => c.kind).sort()).toEqual(['presenter', 'screen', 'voice']);
  for (const clip of clips) expect(clip.duration).toBeGreaterThan(2.5 * TICKS_PER_SECOND);
  const footage = (await (await page.request.get(`/api/projects/${id}/footage`)).json()) as {
    role: string;
    facts: { width: number };
  }[];
  expect(footage.find((f) => f.role === 'screen')!.facts.width).toBeGreaterThan(600);
  // Nothing followed the pointer there, and that is said where it matters.
  const screen = clips.find((c) => c.kind === 'screen')!;
  expect((await page.request.get(`/api/footage/${screen.footageId}/pointer`)).status()).toBe(404);
});
