// Composes stretches of the demo at 1280x720 in a worker of headless Chromium, as the preview does,
// and tells how long a picture takes.
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { WHOLE_CHROMIUM } from './chromium.mjs';
import { run } from './lib.mjs';
import { serve } from './serve.mjs';

const DEMO = 'demo-glaze-firing';
const SIZE = { width: 1280, height: 720 };
const SECOND = 705_600_000;
const COUNT = 300;
const STRETCHES = {
  'the presenter full frame': 1,
  'the presenter in the corner, views that move': 10,
  'the screen with a cover': 60,
};

export async function benchPreview() {
  const { outputFiles } = await build({
    entryPoints: ['src/preview/bench-worker.ts'],
    bundle: true,
    format: 'iife',
    write: false,
    logLevel: 'error',
  });
  // On a fresh clone there is no demo yet.
  run(process.execPath, ['scripts/vistum.mjs', 'demo']);
  const server = await serve(4198);
  const browser = await chromium.launch(WHOLE_CHROMIUM);
  try {
    const page = await browser.newPage();
    const get = async (path) => (await page.request.get(`${server.base}${path}`)).json();
    const { project } = await get(`/api/projects/${DEMO}`);
    const views = await get(`/api/projects/${DEMO}/footage`);
    const pointers = views
      .filter((view) => view.hasPointer)
      .map(async ({ id }) => [id, await get(`/api/footage/${id}/pointer`)]);
    const sources = {
      footage: Object.fromEntries(
        views.map((view) => [
          view.id,
          { ...view.facts, id: view.id, name: view.name, role: view.role },
        ]),
      ),
      pointers: Object.fromEntries(await Promise.all(pointers)),
    };
    await page.route('**/bench-worker.js', (route) =>
      route.fulfill({
        contentType: 'text/javascript',
        headers: { 'cross-origin-embedder-policy': 'require-corp' },
        body: outputFiles[0].text,
      }),
    );
    await page.goto(server.base);
    console.log(
      `\n### Composing ${SIZE.width}x${SIZE.height} in Chromium, ${COUNT} pictures of the demo each\n`,
    );
    console.log(
      '| stretch | mean ms | median | one in twenty takes more than |\n| --- | --- | --- | --- |',
    );
    for (const [name, second] of Object.entries(STRETCHES)) {
      const { spent, error } = await page.evaluate(
        (asked) =>
          new Promise((resolve) => {
            const worker = new Worker('/bench-worker.js');
            worker.onmessage = ({ data }) => (worker.terminate(), resolve(data));
            worker.onerror = (event) =>
              resolve({ error: event.message || 'The worker could not be loaded.' });
            worker.postMessage(asked);
          }),
        { project, sources, size: SIZE, start: second * SECOND, count: COUNT },
      );
      if (error) throw new Error(error);
      const sorted = [...spent].sort((a, b) => a - b);
      const mean = spent.reduce((a, b) => a + b, 0) / spent.length;
      const row = [
        name,
        mean,
        sorted[sorted.length >> 1],
        sorted[Math.floor(sorted.length * 0.95)],
      ];
      console.log(
        `| ${row.map((cell) => (typeof cell === 'number' ? cell.toFixed(1) : cell)).join(' | ')} |`,
      );
    }
    await page.close();
    await scrub(browser, server.base);
  } finally {
    await browser.close();
    server.stop();
  }
}

const ZOOMS = 4;
const MOVES = 180;
/** The mouse moves this often, as one of 60 reports a second does. */
const MOVE_MS = 1000 / 60;
const DRAGS = [
  ['the presenter full frame', 260, 700],
  ['screen and presenter', 700, 1240],
];

/** Drags over the ruler of the demo and counts the different pictures that are seen meanwhile. */
async function scrub(browser, base) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${base}/projects/${DEMO}/edit`);
  await page.locator('[data-clip]').first().waitFor();
  // Until waveforms and strips are there.
  await page.waitForTimeout(2500);
  for (let i = 0; i < ZOOMS; i++) {
    await page.keyboard.press('+');
    await page.waitForTimeout(200);
  }
  await page.evaluate(() => {
    const canvas = document.querySelector('[data-testid=picture] canvas');
    const small = new OffscreenCanvas(64, 36);
    const context = small.getContext('2d', { willReadFrequently: true });
    window.seen = [];
    let last = 0;
    const look = () => {
      context.drawImage(canvas, 0, 0, 64, 36);
      const { data } = context.getImageData(0, 0, 64, 36);
      const sum = data.reduce((hash, value) => (hash * 31 + value) | 0, 0);
      if (sum !== last) window.seen.push(performance.now());
      last = sum;
      requestAnimationFrame(look);
    };
    look();
  });
  const { y, height } = await page.getByTestId('ruler').boundingBox();
  console.log('\n### Scrubbing the demo: different pictures a second\n');
  console.log('| over | pictures a second | one wait in ten is over |\n| --- | --- | --- |');
  for (const [name, from, to] of DRAGS) {
    await page.mouse.move(from, y + height / 2);
    await page.mouse.down();
    await page.waitForTimeout(500);
    await page.evaluate(() => void (window.seen = []));
    const began = Date.now();
    for (let i = 1; i <= MOVES; i++) {
      await page.mouse.move(from + ((to - from) * i) / MOVES, y + height / 2);
      const early = began + i * MOVE_MS - Date.now();
      if (early > 0) await page.waitForTimeout(early);
    }
    const seconds = (Date.now() - began) / 1000;
    const seen = await page.evaluate(() => window.seen);
    await page.mouse.up();
    const waits = seen
      .slice(1)
      .map((t, i) => t - seen[i])
      .sort((a, b) => a - b);
    const tenth = waits[Math.floor(waits.length * 0.9)];
    console.log(`| ${name} | ${(seen.length / seconds).toFixed(1)} | ${tenth?.toFixed(0)} ms |`);
  }
}
