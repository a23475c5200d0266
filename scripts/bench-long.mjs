// Opens projects of 100 to 3,000 clips in headless Chromium and measures what a person waits for.
// Prints how the cost grows.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { WHOLE_CHROMIUM } from './chromium.mjs';
import { say } from './lib.mjs';
import { serve } from './serve.mjs';

const HOURS = 2;
const SECONDS = HOURS * 3600;
const COUNTS = (process.env.VISTUM_BENCH_CLIPS ?? '100,300,1000,3000').split(',').map(Number);
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Opens an editor on such a project and measures opening, scrolling, scaling and editing. */
async function measure(browser, base, id) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const began = Date.now();
  await page.goto(`${base}/projects/${id}/edit`);
  await page.locator('[data-clip], [data-block], [data-crumbs]').first().waitFor();
  const opened = Date.now() - began;
  await wait(2500);
  // About a minute in sight, as when cutting.
  for (let i = 0; i < 30; i++) {
    const scale = await page.evaluate(
      () => document.querySelector('[data-testid=timeline]').scrollWidth,
    );
    if (scale > SECONDS * 18) break;
    await page.keyboard.press('+');
    await wait(120);
  }
  await wait(500);
  const frames = (step, seconds) =>
    page.evaluate(
      async ([source, ms]) => {
        // What is to be done comes as source, since it is run within the page.
        // oxlint-disable-next-line typescript/no-implied-eval
        const act = new Function('element', 'n', source);
        const element = document.querySelector('[data-testid=timeline]');
        const times = [];
        const until = performance.now() + ms;
        for (let n = 0; performance.now() < until; n++) {
          act(element, n);
          times.push(
            await new Promise((resolve) => requestAnimationFrame(() => resolve(performance.now()))),
          );
        }
        const gaps = times
          .slice(1)
          .map((t, i) => t - times[i])
          .sort((a, b) => a - b);
        return {
          fps: (gaps.length * 1000) / (times.at(-1) - times[0]),
          worst: gaps[Math.floor(gaps.length * 0.99)],
        };
      },
      [step, seconds * 1000],
    );
  const scroll = await frames('element.scrollLeft += 60;', 3);
  const scale = await frames(
    "element.dispatchEvent(new WheelEvent('wheel', { ctrlKey: true, deltaY: n % 40 < 20 ? 100 : -100, clientX: 700, clientY: 600, bubbles: true, cancelable: true }));",
    3,
  );
  // From the key to the picture after the next one: the change is on screen then.
  const edit = async (key, shift = false) => {
    const spent = await page.evaluate(
      async ([name, withShift]) => {
        const started = performance.now();
        window.dispatchEvent(
          new KeyboardEvent('keydown', {
            key: name,
            shiftKey: withShift,
            bubbles: true,
            cancelable: true,
          }),
        );
        await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
        return performance.now() - started;
      },
      [key, shift],
    );
    await wait(900);
    return spent;
  };
  const middle = (list) => [...list].sort((a, b) => a - b)[list.length >> 1];
  const split = [];
  const ripple = [];
  const undo = [];
  for (let i = 0; i < 5; i++) {
    await page.getByLabel('Timecode').fill(String(1800 + i * 61));
    await page.getByLabel('Timecode').press('Enter');
    await page.evaluate(() => document.activeElement?.blur());
    await wait(400);
    split.push(await edit('b'));
    await edit('i');
    await page.evaluate(() => {
      for (let n = 0; n < 3; n++)
        window.dispatchEvent(
          new KeyboardEvent('keydown', { key: 'ArrowRight', shiftKey: true, bubbles: true }),
        );
    });
    await edit('o');
    ripple.push(await edit('Delete', true));
    undo.push(
      await page.evaluate(async () => {
        const started = performance.now();
        window.dispatchEvent(
          new KeyboardEvent('keydown', {
            key: 'z',
            ctrlKey: true,
            bubbles: true,
            cancelable: true,
          }),
        );
        await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
        return performance.now() - started;
      }),
    );
    await edit('Escape');
    await edit('Escape');
  }
  const drawn = await page.locator('[data-clip], [data-block], [data-crumbs]').count();
  await page.close();
  return {
    opened,
    scroll,
    scale,
    split: middle(split),
    ripple: middle(ripple),
    undo: middle(undo),
    drawn,
  };
}

export async function benchLong() {
  const { longWork } = await import('../dist/bench-long-project.mjs');
  const data = mkdtempSync(join(tmpdir(), 'vistum-long-'));
  say(`Making a recording of ${HOURS} hours`);
  const file = join(data, 'long.mp4');
  execFileSync('ffmpeg', [
    ...[
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=192x108:r=1:d=${SECONDS}`,
      '-f',
      'lavfi',
      '-i',
      `sine=200:r=16000:d=${SECONDS}`,
    ],
    ...[
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      '-b:a',
      '24k',
      file,
    ],
  ]);
  const { base, stop } = await serve('4195', { VISTUM_DATA: data });
  const browser = await chromium.launch(WHOLE_CHROMIUM);
  try {
    const api = async (path, method = 'GET', body) => {
      const response = await fetch(base + path, {
        method,
        headers: { 'content-type': 'application/json' },
        body: body && JSON.stringify(body),
      });
      if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
      return response.json();
    };
    const make = () =>
      api('/api/projects', 'POST', {
        name: 'Long',
        width: 1920,
        height: 1080,
        frameRate: { num: 30, den: 1 },
      });
    const { id: first } = await make();
    const encode = (text) => Buffer.from(text).toString('base64');
    const bytes = readFileSync(file);
    const created = await fetch(`${base}/api/uploads`, {
      method: 'POST',
      headers: {
        'tus-resumable': '1.0.0',
        'upload-length': String(bytes.length),
        'upload-metadata': `filename ${encode('long screen.mp4')},project ${encode(first)}`,
      },
    });
    await fetch(new URL(created.headers.get('location'), base), {
      method: 'PATCH',
      headers: {
        'tus-resumable': '1.0.0',
        'upload-offset': '0',
        'content-type': 'application/offset+octet-stream',
      },
      body: bytes,
    });
    say('Preparing it');
    let footage;
    do {
      await wait(1000);
      [footage] = await api(`/api/projects/${first}/footage`);
      if (footage?.status === 'failed') throw new Error(footage.error);
    } while (footage?.status !== 'ready');
    console.log(`\nA project of ${HOURS} h in the interface (1280x800), medians of five edits`);
    console.log(
      '  clips   opened   scrolled       scaled         split    ripple delete   undo    drawn',
    );
    for (const count of COUNTS) {
      const each = Math.floor((SECONDS * 30) / (count / 3));
      const { id } = await make();
      const { names } = await api(`/api/projects/${id}/footage/bring`, 'POST', {
        footageIds: [footage.id],
      });
      const opened = await api(`/api/projects/${id}`);
      await api(`/api/projects/${id}`, 'PUT', {
        revision: opened.revision,
        project: longWork(opened.project, {
          ...{ clips: count, footageId: names[footage.id], each, apart: each, gap: 10 },
        }),
        history: { done: [], undone: [] },
      });
      const m = await measure(browser, base, id);
      const rate = ({ fps, worst }) => `${fps.toFixed(0)} fps (${worst.toFixed(0)} ms)`.padEnd(15);
      console.log(
        `  ${String(count).padEnd(7)} ${`${m.opened} ms`.padEnd(8)} ${rate(m.scroll)}${rate(m.scale)}${`${m.split.toFixed(0)} ms`.padEnd(9)}${`${m.ripple.toFixed(0)} ms`.padEnd(16)}${`${m.undo.toFixed(0)} ms`.padEnd(8)}${m.drawn}`,
      );
    }
  } finally {
    await browser.close();
    stop();
    rmSync(data, { recursive: true, force: true });
  }
}
