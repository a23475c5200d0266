// Finds again in recordings what the practice devices flash and click at one instant.
import { spawnSync } from 'node:child_process';

/**
 * Times in seconds at which a video is white all over: the flash of the practice devices.
 * @returns {number[]}
 */
export function flashes(file) {
  const { stdout } = spawnSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      file,
      '-vf',
      'scale=16:9,format=gray,showinfo=checksum=0',
      '-f',
      'rawvideo',
      '-fps_mode',
      'passthrough',
      '-',
    ],
    { maxBuffer: 1 << 28 },
  );
  const { stdout: times } = spawnSync(
    'ffprobe',
    [
      '-v',
      'error',
      '-select_streams',
      'v:0',
      '-show_entries',
      'frame=pts_time',
      '-of',
      'csv=p=0',
      file,
    ],
    {
      maxBuffer: 1 << 26,
    },
  );
  const pts = times.toString().trim().split('\n').map(parseFloat);
  const found = [];
  let was = false;
  for (let i = 0; i < pts.length; i++) {
    const white = stdout.subarray(i * 144, (i + 1) * 144).every((v) => v > 200);
    if (white && !was) found.push(pts[i]);
    was = white;
  }
  return found;
}

/**
 * Times in seconds at which a click begins: samples near full scale after quiet ones.
 * @returns {number[]}
 */
export function clicks(file) {
  const rate = 48_000;
  const { stdout } = spawnSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-ac', '1', '-ar', String(rate), '-f', 's16le', '-'],
    {
      maxBuffer: 1 << 30,
    },
  );
  const found = [];
  for (let i = 0; i + 1 < stdout.length; i += 2)
    if (Math.abs(stdout.readInt16LE(i)) > 29_000) {
      found.push(i / 2 / rate);
      i += rate;
    }
  return found;
}
