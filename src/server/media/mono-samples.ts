import { GUARDED_INPUT, runMedia, type MediaRun } from './process';

/**
 * Reads the sound of a recording as mono samples of 16 bits, as they come. A late start and gaps are
 * silence, so that the samples stay with the picture.
 *
 * @param rate samples a second
 * @throws as `runMedia`
 */
export async function readMono(
  path: string,
  rate: number,
  take: (samples: Int16Array) => void,
  run: Pick<MediaRun, 'signal' | 'seconds'>,
): Promise<void> {
  // Pieces may end within a sample.
  let rest: Buffer = Buffer.alloc(0);
  const onOutput = (bytes: Buffer) => {
    const all = rest.length ? Buffer.concat([rest, bytes]) : bytes;
    const count = all.length >> 1;
    take(Int16Array.from({ length: count }, (_, i) => all.readInt16LE(i * 2)));
    rest = all.subarray(count * 2);
  };
  const resampled = ['-af', `aresample=${rate}:async=1000:first_pts=0`, '-ac', '1'];
  await runMedia(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...GUARDED_INPUT, '-i', path],
      ...['-map', '0:a:0', '-vn', ...resampled, '-f', 's16le', 'pipe:1'],
    ],
    { ...run, onOutput },
  );
}
