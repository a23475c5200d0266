import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export const folder = mkdtempSync(join(tmpdir(), 'vistum-browser-'));

export const ffmpeg = (...args: string[]): Buffer =>
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { maxBuffer: 1 << 28 });

/** Structural similarity of a frame of a video and a still, 1 for equal ones. */
export function ssim(video: string, still: string, frame: number): number {
  const graph = `[0:v]select=eq(n\\,${frame}),format=yuv420p[a];[1:v]scale=out_color_matrix=bt709:out_range=tv,format=yuv420p[b];[a][b]ssim`;
  const { stderr } = spawnSync(
    'ffmpeg',
    [
      '-i',
      video,
      '-i',
      still,
      '-frames:v',
      '1',
      '-lavfi',
      graph,
      '-fps_mode',
      'passthrough',
      '-f',
      'null',
      '-',
    ],
    {
      encoding: 'utf8',
    },
  );
  return Number(/All:([\d.]+)/.exec(stderr)?.[1]);
}

/** Calls the command line on the data of the running server. */
export const vistum = <T>(...args: string[]): T =>
  JSON.parse(
    execFileSync(process.execPath, ['dist/vistum.mjs', ...args, '--json'], {
      env: {
        ...process.env,
        VISTUM_DATA: process.env.VISTUM_TEST_DATA ?? '/tmp/vistum-e2e',
        VISTUM_ROOT: process.cwd(),
      },
      stdio: ['ignore', 'pipe', 'ignore'],
    }).toString(),
  ) as T;
