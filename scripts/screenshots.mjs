// Makes docs/screenshots anew from the demo project, with a server of its own.
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { CHROMIUM } from './chromium.mjs';
import { run } from './lib.mjs';

const port = '4197';
const base = `http://127.0.0.1:${port}`;
const folder = 'docs/screenshots';
mkdirSync(folder, { recursive: true });
run(process.execPath, ['scripts/vistum.mjs', 'demo']);
const server = spawn(process.execPath, ['scripts/start.mjs'], { env: { ...process.env, PORT: port }, stdio: 'ignore' });
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
for (let i = 0; i < 240; i++) {
  if (
    await fetch(`${base}/api/projects`).then(
      (r) => r.ok,
      () => false,
    )
  )
    break;
  await wait(1000);
}
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shot = (name) => page.screenshot({ path: `${folder}/${name}.png` });
const goTo = async (time) => {
  await page.getByLabel('Timecode').fill(time);
  await page.getByLabel('Timecode').press('Enter');
  await wait(1500);
};
try {
  await page.goto(base);
  await page.getByRole('link', { name: 'Open Glaze firing', exact: true }).waitFor();
  await wait(800);
  await shot('projects');
  await page.goto(`${base}/projects/demo-glaze-firing/edit`);
  await page.locator('[data-clip]').first().waitFor();
  await wait(3000);
  await goTo('45');
  await shot('edit');
  await page.locator('[data-span=framings]').nth(1).click();
  await goTo('37');
  await shot('framing');
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Footage' }).click();
  await wait(600);
  await shot('footage');
  await goTo('15');
  await page.getByRole('button', { name: 'Presenter', exact: true }).last().click();
  await page.getByRole('button', { name: 'Show matte' }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'Show matte' }).click();
  await wait(1500);
  await shot('presenter');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await wait(500);
  await shot('export');
  await page.getByRole('combobox', { name: 'Size' }).selectOption('960x540');
  await page.getByLabel('Range start').fill('0:33');
  await page.getByLabel('Range end').fill('0:39');
  await page.getByRole('button', { name: 'Start export' }).click();
  await page.getByRole('link', { name: 'Download' }).first().waitFor({ timeout: 120_000 });
  await page.locator('video').evaluate((video) => {
    video.currentTime = 3;
  });
  await wait(1500);
  await shot('publish');
  await page.getByRole('button', { name: 'Delete this export' }).first().click();
  await wait(800);
} finally {
  await browser.close();
  server.kill('SIGTERM');
}
