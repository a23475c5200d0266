// Records the practice devices in headless Chromium and measures what arrives. Prints frames,
// offsets and time on the main thread.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { WHOLE_CHROMIUM } from './chromium.mjs';
import { say } from './lib.mjs';
import { serve } from './serve.mjs';
import { clicks, flashes } from './slate.mjs';

const SECONDS = Number(process.env.VISTUM_BENCH_SECONDS ?? 60);
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Records for some seconds with the practice devices, with a flash and click near both ends. */
export async function benchRecording() {
  const data = mkdtempSync(join(tmpdir(), 'vistum-record-'));
  const { base, stop } = await serve('4196', { VISTUM_DATA: data });
  const browser = await chromium.launch(WHOLE_CHROMIUM);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const made = await page.request.post(`${base}/api/projects`, {
      data: { name: 'Recording', width: 1920, height: 1080, frameRate: { num: 30, den: 1 } },
    });
    const { id } = await made.json();
    await page.goto(`${base}/projects/${id}/record`);
    await page.getByRole('button', { name: 'Try it with practice devices' }).click();
    await page.getByLabel('Microphone state').getByText('ready').waitFor();
    // The made voice is taken away, so that only clicks are loud.
    await page.getByLabel('Practice microphone sounds').selectOption('too quiet');
    await page.getByRole('button', { name: 'Take', exact: true }).click();
    await wait(1500);
    say(`Recording the practice devices for ${SECONDS} s`);
    const session = await page.context().newCDPSession(page);
    await session.send('Performance.enable');
    const busy = async () =>
      (await session.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration')
        .value;
    await page.keyboard.press('Alt+Enter');
    await page.getByTestId('elapsed').waitFor();
    const before = await busy();
    const began = Date.now();
    const box = await page.getByTestId('live-overlay').boundingBox();
    const flash = () => page.getByRole('button', { name: 'Flash and click' }).click();
    await wait(2000);
    await flash();
    // The program is operated all the while, so that the screen has something to show.
    for (let i = 0; Date.now() - began < (SECONDS - 3) * 1000; i++) {
      const row = i % 4;
      await page.mouse.click(box.x + box.width * 0.06, box.y + box.height * (0.187 + row * 0.0556));
      await page.mouse.move(
        box.x + box.width * (0.3 + 0.4 * ((i % 7) / 7)),
        box.y + box.height * (0.4 + 0.3 * ((i % 5) / 5)),
        {
          steps: 12,
        },
      );
      await wait(150);
    }
    await flash();
    await wait(2000);
    const spent = await busy();
    const length = (Date.now() - began) / 1000;
    await page.keyboard.press('Alt+Enter');
    await page.getByRole('region', { name: 'Review' }).waitFor({ timeout: 60_000 });
    const [take] = await (await page.request.get(`${base}/api/projects/${id}/takes`)).json();
    const text = await (
      await page.request.get(`${base}/api/takes/${take.id}/tracks/events`)
    ).text();
    const clocks = {};
    for (const line of text.trim().split('\n')) {
      const event = JSON.parse(line);
      if (event.type === 'clock') clocks[event.track] = event;
    }
    const file = (name) =>
      join(data, 'takes', take.id, `finished-${name}.${name === 'voice' ? 'wav' : 'mp4'}`);
    const seen = {
      screen: flashes(file('screen')).map((t) => t * 1000 + clocks.screen.offset),
      camera: flashes(file('camera')).map((t) => t * 1000 + clocks.camera.offset),
      voice: clicks(file('voice')).map((t) => t * 1000 + clocks.voice.offset),
    };
    const off = (name, i) => (seen[name].at(i) - seen.voice.at(i)).toFixed(0);
    console.log(
      `\nRecording the practice screen at 1920x1080 with camera and microphone, ${length.toFixed(0)} s`,
    );
    for (const name of ['screen', 'camera', 'voice'])
      console.log(
        `  ${name.padEnd(7)} ${String(clocks[name].pieces).padStart(6)} ${name === 'voice' ? 'blocks' : 'frames'}, ${clocks[name].dropped} ${name === 'voice' ? 'gaps filled' : 'dropped'}, drift ${((clocks[name].rate - 1) * 1e6).toFixed(0)} ppm`,
      );
    console.log(
      `  flash against click, at the start: screen ${off('screen', 0)} ms, camera ${off('camera', 0)} ms`,
    );
    console.log(
      `  flash against click, at the end:   screen ${off('screen', -1)} ms, camera ${off('camera', -1)} ms`,
    );
    console.log(`  main thread: ${(((spent - before) / length) * 1000).toFixed(0)} ms a second`);
  } finally {
    await browser.close();
    stop();
    rmSync(data, { recursive: true, force: true });
  }
}
