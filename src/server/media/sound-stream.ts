import type { Readable } from 'node:stream';
import { CHANNELS, SAMPLE_RATE, silence, type Stereo } from '@/core/audio/mix';
import { Interrupted } from '../processes/interrupted';
import { limit } from '../limits';
import { problem } from '../problem';
import { GUARDED_INPUT, MediaProcess } from './process';

const BYTES = 4 * CHANNELS;

/** Sound of a recording from a sample on, as planar stereo at 48 kHz; silence after its end. */
export class SoundStream {
  private readonly process: MediaProcess;
  private readonly out: Readable;
  private pending: Buffer[] = [];
  private pendingBytes = 0;

  constructor(path: string, startSample: number) {
    const seconds = startSample / SAMPLE_RATE;
    this.process = new MediaProcess(
      'ffmpeg',
      [
        '-v',
        'error',
        '-nostdin',
        ...GUARDED_INPUT,
        ...(seconds > 0 ? ['-ss', seconds.toFixed(6)] : []),
        '-i',
        path,
        '-map',
        '0:a:0',
        '-vn',
        '-sn',
        '-dn',
        // Gaps and a late start in the recording become silence, so that sound stays with its
        // picture.
        '-af',
        'aresample=48000:async=1000:first_pts=0',
        '-ac',
        String(CHANNELS),
        '-f',
        'f32le',
        'pipe:1',
      ],
      ['ignore', 'pipe', 'pipe'],
    );
    this.out = this.process.child.stdout!;
  }

  /**
   * The next samples.
   *
   * @throws Interrupted when somebody ended the decoder, Problem when it stands still
   */
  async read(count: number): Promise<Stereo> {
    const wanted = count * BYTES;
    while (this.pendingBytes < wanted) {
      const chunk = this.out.read() as Buffer | null;
      if (chunk) {
        this.pending.push(chunk);
        this.pendingBytes += chunk.length;
      } else if (this.out.readableEnded || this.out.destroyed) {
        const failure = await this.process.ended;
        if (failure instanceof Interrupted) throw failure;
        break;
      } else
        await new Promise<void>((resolve, reject) => {
          const late = setTimeout(
            () => {
              this.close();
              reject(problem('media-stands-still'));
            },
            limit('stillSeconds') * 1000,
          );
          const done = () => {
            clearTimeout(late);
            this.out.off('readable', done).off('end', done).off('close', done);
            resolve();
          };
          this.out.on('readable', done).on('end', done).on('close', done);
        });
    }
    const all = Buffer.concat(this.pending);
    const rest = all.subarray(Math.min(wanted, all.length));
    this.pending = rest.length ? [rest] : [];
    this.pendingBytes = rest.length;
    const sound = silence(count);
    const frames = Math.min(count, Math.floor(all.length / BYTES));
    for (let i = 0; i < frames; i++) {
      sound[0][i] = all.readFloatLE(i * BYTES);
      sound[1][i] = all.readFloatLE(i * BYTES + 4);
    }
    return sound;
  }

  close(): void {
    this.process.kill();
    this.out.destroy();
  }
}
