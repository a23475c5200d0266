import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  drawKilnbook,
  drawPointer,
  HEIGHT,
  initialState,
  WIDTH,
} from '../../src/practice/kilnbook';
import { musicBed } from './music';
import { perform } from './performance';
import { PresenterCamera } from './presenter';
import { SCRIPT } from './script';
import { drawSlide, SLIDE_COUNT } from './slides';
import { wavFile } from '@/core/audio/wav';

/*
 * Makes the demo recordings. Needs ffmpeg and espeak-ng; takes some minutes.
 * The results are committed, so that a new user waits for nothing.
 */
const RATE = 48000;
const FPS = 30;
/** The take that was recorded in the studio, by its number from 0 on. */
const STUDIO_TAKE = 3;
/** The camera was started this long before the screen recording. */
const LEAD = 1.4;
const out = join(process.cwd(), 'demo', 'media');
const scratch = mkdtempSync(join(tmpdir(), 'vistum-demo-'));
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args]);
const COLOR = [
  '-colorspace',
  'bt709',
  '-color_primaries',
  'bt709',
  '-color_trc',
  'bt709',
  '-color_range',
  'tv',
];
const TO_709 = 'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p';

function speak(text: string, index: number): Float32Array {
  const raw = join(scratch, `say-${index}.wav`);
  execFileSync('espeak-ng', ['-v', 'en-gb+f3', '-s', '152', '-p', '46', '-w', raw, text]);
  const pcm = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', raw, '-ac', '1', '-ar', `${RATE}`, '-f', 'f32le', '-'],
    {
      maxBuffer: 1 << 28,
    },
  );
  const said = new Float32Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + pcm.length));
  let end = said.length;
  while (end > 0 && Math.abs(said[end - 1]!) < 0.002) end--;
  return said.slice(0, end);
}

interface Narration {
  readonly starts: number[];
  readonly end: number;
  /** Screen time; sample 0 is the start of the screen recording. */
  readonly samples: Float32Array;
}

/** Says the script; each step lasts as long as its words or its work, whichever is longer. */
function narrate(): Narration {
  const work = [6.4, 9, 13, 15.5, 11.5, 8.2, 10.5];
  const starts: number[] = [];
  const said = SCRIPT.map((step, i) => speak(step.narration, i));
  let t = 0.9;
  said.forEach((words, i) => {
    starts.push(t);
    t += Math.max(words.length / RATE + 0.9, work[i]!);
  });
  const samples = new Float32Array(Math.ceil((t + 0.6) * RATE));
  said.forEach((words, i) => {
    const from = Math.round(starts[i]! * RATE);
    for (let k = 0; k < words.length; k++) samples[from + k] = words[k]! * 0.5;
  });
  return { starts, end: t + 0.6, samples };
}

async function pipeVideo(
  args: string[],
  frames: number,
  frame: (i: number) => Uint8Array | Uint8ClampedArray,
) {
  const child = spawn('ffmpeg', ['-v', 'error', '-y', ...args], {
    stdio: ['pipe', 'inherit', 'inherit'],
  });
  const ended = new Promise<void>((resolve, reject) =>
    child.on('exit', (code) => (code ? reject(new Error(`ffmpeg ended with ${code}`)) : resolve())),
  );
  for (let i = 0; i < frames; i++) {
    const bytes = frame(i);
    const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    if (!child.stdin.write(Buffer.from(buffer)))
      await new Promise((resolve) => child.stdin.once('drain', resolve));
    if (i % 150 === 0) process.stderr.write(`  ${i}/${frames}\r`);
  }
  child.stdin.end();
  await ended;
}

async function screen(narration: Narration) {
  const performance = perform(
    narration.starts.map((s) => s * 1000),
    narration.end * 1000,
  );
  writeFileSync(
    join(out, 'kilnbook-screen.pointer.json'),
    JSON.stringify(performance.track) + '\n',
  );
  const faint = join(scratch, 'faint.wav');
  const hush = new Float32Array(narration.samples.length);
  let low = 0;
  for (let i = 0; i < hush.length; i++) {
    low += 0.25 * (narration.samples[i]! * 0.09 + (Math.random() - 0.5) * 0.004 - low);
    hush[i] = low;
  }
  writeFileSync(faint, wavFile([hush], RATE));
  const ui = createCanvas(WIDTH, HEIGHT);
  const full = createCanvas(WIDTH, HEIGHT);
  const state = initialState();
  drawKilnbook(ui.getContext('2d'), state);
  let next = 0;
  let shape = 'arrow';
  let eventIndex = 0;
  let sampleIndex = 0;
  const { samples, events } = performance.track;
  await pipeVideo(
    [
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      `${WIDTH}x${HEIGHT}`,
      '-r',
      `${FPS}`,
      '-i',
      'pipe:0',
      '-i',
      faint,
      '-vf',
      TO_709,
      '-c:v',
      'libx264',
      '-preset',
      'medium',
      '-crf',
      '19',
      '-g',
      '120',
      ...COLOR,
      '-c:a',
      'aac',
      '-b:a',
      '64k',
      '-shortest',
      '-movflags',
      '+faststart',
      join(out, 'kilnbook-screen.mp4'),
    ],
    Math.floor(narration.end * FPS),
    (i) => {
      const ms = (i * 1000) / FPS;
      let dirty = false;
      for (; next < performance.changes.length && performance.changes[next]!.t <= ms; next++) {
        performance.changes[next]!.apply(state);
        dirty = true;
      }
      if (dirty) drawKilnbook(ui.getContext('2d'), state);
      for (; eventIndex < events.length && events[eventIndex]!.t <= ms; eventIndex++)
        shape = events[eventIndex]!.shape ?? shape;
      while (sampleIndex + 1 < samples.length && samples[sampleIndex + 1]![0] <= ms) sampleIndex++;
      const [t0, x0, y0] = samples[sampleIndex]!;
      const [t1, x1, y1] = samples[sampleIndex + 1] ?? [t0 + 1, x0, y0];
      const u = Math.min(1, Math.max(0, (ms - t0) / (t1 - t0)));
      const c = full.getContext('2d');
      c.drawImage(ui, 0, 0);
      drawPointer(c, x0 + (x1 - x0) * u, y0 + (y1 - y0) * u, shape);
      return full.data();
    },
  );
}

async function presenter(narration: Narration) {
  const walled = new PresenterCamera('wall');
  const studio = new PresenterCamera('room');
  // The takes are cut in the pause before a step, on a whole frame.
  const cuts = [
    0,
    ...[2, 3, 4, 5].map((i) => Math.round((narration.starts[i]! - 0.45 + LEAD) * FPS)),
  ];
  const total = Math.floor((narration.end + LEAD) * FPS);
  const voiceAt = (t: number) => {
    const from = Math.round((t - LEAD) * RATE);
    let sum = 0;
    for (let k = 0; k < 2400; k++) sum += (narration.samples[from + k] ?? 0) ** 2;
    return Math.min(1, Math.sqrt(sum / 2400) * 9);
  };
  let voice = 0;
  for (const [index, from] of cuts.entries()) {
    // One take was recorded without the wall.
    const camera = index === STUDIO_TAKE ? studio : walled;
    const to = cuts[index + 1] ?? total;
    const sound = new Float32Array(Math.round(((to - from) / FPS) * RATE));
    const offset = Math.round((from / FPS - LEAD) * RATE);
    for (let k = 0; k < sound.length; k++)
      sound[k] = (narration.samples[offset + k] ?? 0) * 0.9 + (Math.random() - 0.5) * 0.0012;
    const wav = join(scratch, `voice-${index}.wav`);
    writeFileSync(wav, wavFile([sound], RATE));
    await pipeVideo(
      [
        '-f',
        'rawvideo',
        '-pix_fmt',
        'rgba',
        '-s',
        `${camera.width}x${camera.height}`,
        '-r',
        `${FPS}`,
        '-i',
        'pipe:0',
        '-i',
        wav,
        '-vf',
        TO_709,
        '-c:v',
        'libx264',
        '-preset',
        'medium',
        '-crf',
        '27',
        '-g',
        '90',
        ...COLOR,
        '-c:a',
        'aac',
        '-b:a',
        '80k',
        '-movflags',
        '+faststart',
        join(out, `presenter-take-${index + 1}.mp4`),
      ],
      to - from,
      (i) => {
        const t = (from + i) / FPS;
        voice += 0.45 * (voiceAt(t) - voice);
        return camera.frame(t, voice);
      },
    );
  }
  return cuts.map((c) => c / FPS);
}

async function slides() {
  const canvas = createCanvas(960, 720);
  const frames = 25 * 2 * SLIDE_COUNT;
  await pipeVideo(
    [
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgba',
      '-s',
      '960x720',
      '-r',
      '25',
      '-i',
      'pipe:0',
      '-vf',
      TO_709,
      '-c:v',
      'libx264',
      '-preset',
      'slow',
      '-crf',
      '20',
      ...COLOR,
      '-movflags',
      '+faststart',
      join(out, 'kiln-safety-slides.mp4'),
    ],
    frames,
    (i) => {
      drawSlide(canvas.getContext('2d'), Math.floor(i / 50));
      return canvas.data();
    },
  );
}

async function main() {
  mkdirSync(out, { recursive: true });
  const font =
    'node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2';
  GlobalFonts.register(readFileSync(font), 'Kilnbook');
  const only = process.argv[2];
  const narration = narrate();
  const wants = (part: string) => !only || only === part;
  if (wants('music')) {
    const wav = join(scratch, 'music.wav');
    writeFileSync(wav, wavFile(musicBed(narration.end + 3, RATE), RATE));
    ffmpeg('-i', wav, '-c:a', 'aac', '-b:a', '96k', join(out, 'music-bed.m4a'));
  }
  if (wants('slides')) await slides();
  if (wants('screen')) await screen(narration);
  if (wants('presenter')) await presenter(narration);
  writeFileSync(
    join(out, 'scenario.json'),
    JSON.stringify(
      { lead: LEAD, starts: narration.starts, end: narration.end, steps: SCRIPT },
      null,
      2,
    ) + '\n',
  );
  rmSync(scratch, { recursive: true });
}

await main();
