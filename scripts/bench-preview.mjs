// Composes stretches of the demo at 1280x720 in a worker of headless Chromium, as the preview does,
// and tells how long a picture takes.
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { CHROMIUM } from './chromium.mjs';
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
  const browser = await chromium.launch(CHROMIUM);
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
  } finally {
    await browser.close();
    server.stop();
  }
}
