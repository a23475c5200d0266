import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { ONSET_RATE } from '../src/core/audio/onsets';
import { drifted, elsewhere, talk } from '../src/core/audio/testing';
import { clockOf } from '../src/core/project/clip-time';
import type { Clip } from '../src/core/project/model';
import { ticksToSeconds } from '../src/core/time/ticks';
import { clips, message } from './edit';
import { ffmpeg, folder, vistum } from './media';
import { openDocument, saved } from './recording';

/** A recording of what was heard, with a picture if it has one. */
function record(name: string, sound: Float32Array, ...picture: string[]): string {
  const raw = join(folder, `${name}.raw`);
  writeFileSync(raw, Buffer.from(Float32Array.from(sound, (sample) => sample * 0.3).buffer));
  const path = join(folder, name);
  ffmpeg('-f', 'f32le', '-ar', String(ONSET_RATE), '-ac', '1', '-i', raw, ...picture, path);
  return path;
}

/** What `vistum match` answers. */
interface Matched {
  readonly offsetMs: number;
  readonly driftPpm: number;
  readonly confidence: number;
}

test('recordings of several machines are lined up by one press, and what heard nothing is told', async ({
  page,
}) => {
  const room = talk(40, 3);
  const picture = ['-f', 'lavfi', '-i', 'color=#e3eef2:s=320x180:r=10', '-shortest'];
  const files = [
    record('screen.mp4', room, ...picture, '-pix_fmt', 'yuv420p', '-ar', '48000'),
    record('recorder.wav', drifted(elsewhere(room.subarray(6.2 * ONSET_RATE), 4), 200)),
    record('hall.mp3', elsewhere(room.subarray(3.05 * ONSET_RATE, 30 * ONSET_RATE), 9)),
    record('other.wav', talk(20, 71)),
  ];
  const { project } = vistum<{ project: string }>('new', '--name', 'Three', '--size', '640x360');
  const role = (path: string) => (path.endsWith('mp4') ? 'screen' : 'voice');
  const ids = files.map(
    (path) =>
      vistum<{ footage: string }>('import', project, path, '--role', role(path), '--place').footage,
  );
  const told = vistum<Matched>('match', project, ids[0]!, ids[1]!);
  expect(Math.abs(told.offsetMs - 6200)).toBeLessThan(1);
  expect(Math.abs(told.driftPpm - 200)).toBeLessThan(5);
  expect(told.confidence).toBeGreaterThan(0.8);

  await page.goto(`/projects/${project}/edit`);
  await expect(clips(page, 'voice')).toHaveCount(3);
  const clipOf = async (footage: string): Promise<Clip> =>
    (await openDocument(page, project)).project.lanes
      .flatMap((lane) => lane.clips)
      .find(({ footageId }) => footageId === footage)!;
  const before = await clipOf(ids[2]!);
  await clips(page, 'screen').click();
  for (const i of [0, 1, 2])
    await clips(page, 'voice')
      .nth(i)
      .click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Line up by sound' }).click();
  await expect(
    message(
      page,
      /recorder\.wav lined up, \d+ % agree, and its clock, .* made up for; hall\.mp3 lined up/,
    ),
  ).toBeVisible();
  await expect(message(page, /screen\.mp4 and other\.wav did not hear the same/)).toBeVisible();
  await saved(page);
  /** Seconds of the screen that a clip’s recording lies after it. */
  const after = async (footage: string) => {
    const { start, source } = await clipOf(footage);
    return ticksToSeconds(start - source);
  };
  expect(Math.abs((await after(ids[1]!)) - 6.2)).toBeLessThan(0.001);
  expect(Math.abs(clockOf(await clipOf(ids[1]!))! - 200)).toBeLessThan(5);
  // An encoder may put some silence before what it was given.
  expect(Math.abs((await after(ids[2]!)) - 3.05)).toBeLessThan(0.06);

  // What is exported of the recorder alone is what the screen heard, by the screen's clock.
  await page.keyboard.press('Escape');
  await clips(page, 'voice').first().click();
  await expect(page.getByText(/clock was \d+ millionths too slow/)).toBeVisible();
  const out = join(folder, 'voice.wav');
  vistum('export', project, '--out', out);
  const exported = vistum<{ footage: string }>('import', project, out, '--role', 'voice').footage;
  const mixed = vistum<Matched>('match', project, ids[0]!, exported);
  expect(Math.abs(mixed.offsetMs)).toBeLessThan(1);
  expect(Math.abs(mixed.driftPpm)).toBeLessThan(5);

  await page.keyboard.press('Control+z');
  await saved(page);
  expect(await clipOf(ids[2]!)).toEqual(before);
});
