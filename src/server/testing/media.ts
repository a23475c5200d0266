import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A folder of its own for a test. */
export const scratchFolder = (): string => mkdtempSync(join(tmpdir(), 'vistum-test-'));

/** Runs FFmpeg for a test and answers its standard output. */
export const ffmpeg = (...args: string[]): Buffer =>
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { maxBuffer: 1 << 30 });

/**
 * FFmpegs, and what becomes one, that this process began and that are still in the system's table,
 * whether they work or have ended.
 */
export const startedProcesses = (): string[] =>
  readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8')
    .split(' ')
    .filter(
      (pid) =>
        pid.trim() &&
        /\((ffmpeg|prlimit|setpriv|node)\)/.test(readFileSync(`/proc/${pid}/stat`, 'utf8')),
    );

const BITS = 12;
const CELL = 40;

/**
 * An FFmpeg source whose pictures carry their number as a row of black and white
 * cells, twelve bits, so that a test can read which frame it sees.
 */
export const numberedFrames = (seconds: number, rate: string, size = '640x360'): string[] => {
  const cells = Array.from(
    { length: BITS },
    (_, bit) =>
      `drawbox=x=${bit * CELL}:y=0:w=${CELL}:h=${CELL}:c=white:t=fill:enable='mod(floor(n/${2 ** bit})\\,2)'`,
  );
  return ['-f', 'lavfi', '-i', `color=c=black:s=${size}:r=${rate}:d=${seconds},${cells.join(',')}`];
};

/** Numbers of all frames of a video whose cells lie at a scale of `scale` from the top left. */
export function readNumbers(path: string, scale = 1, more: string[] = []): number[] {
  const width = Math.round(BITS * CELL * scale);
  const height = Math.round(CELL * scale);
  const gray = ffmpeg(
    '-i',
    path,
    ...more,
    '-vf',
    `crop=${width}:${height}:0:0,format=gray`,
    '-fps_mode',
    'passthrough',
    '-f',
    'rawvideo',
    '-',
  );
  const size = width * height;
  return Array.from({ length: Math.floor(gray.length / size) }, (_, frame) => {
    let number = 0;
    for (let bit = 0; bit < BITS; bit++) {
      const x = Math.round((bit + 0.5) * CELL * scale);
      if (gray[frame * size + Math.round(height / 2) * width + x]! > 128) number += 2 ** bit;
    }
    return number;
  });
}
