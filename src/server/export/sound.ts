import { SoundEngine, type OpenSound } from '@/core/audio/engine';
import { SAMPLE_RATE } from '@/core/audio/mix';
import { planSound } from '@/core/audio/plan';
import type { ReadSound } from '@/core/audio/read-sound';
import { ticksToSeconds } from '@/core/time/ticks';
import type { Range } from '@/core/time/ranges';
import { SoundStream } from '../media/sound-stream';
import type { RenderTask } from './render-frames';

const CHUNK = SAMPLE_RATE;

/** Sound of one recording, decoded in order from where it is first asked for. */
class OrderedSound implements OpenSound {
  private stream: SoundStream | null = null;
  private next = -1;

  constructor(private readonly path: string) {}

  readonly read: ReadSound = (from, count) => {
    if (from !== this.next || !this.stream) {
      this.stream?.close();
      this.stream = new SoundStream(this.path, from);
    }
    this.next = from + count;
    return this.stream.read(count);
  };

  readonly close = (): void => this.stream?.close();
}

/**
 * Mixes a stretch of the timeline and hands it over in second-long pieces of interleaved stereo,
 * 32-bit float.
 */
export async function mixSound(
  task: Pick<RenderTask, 'project' | 'sources' | 'originals'>,
  range: Range,
  write: (bytes: Uint8Array) => Promise<void>,
  signal: AbortSignal,
): Promise<void> {
  const first = Math.round(ticksToSeconds(range.start) * SAMPLE_RATE);
  const last = Math.round(ticksToSeconds(range.end) * SAMPLE_RATE);
  const engine = new SoundEngine((footageId) => {
    const original = task.originals[footageId];
    return original ? new OrderedSound(original.path) : null;
  }, 0);
  engine.setPlan(planSound(task.project, task.sources));
  try {
    for (let at = first; at < last; at += CHUNK) {
      signal.throwIfAborted();
      const length = Math.min(CHUNK, last - at);
      const mix = await engine.mix(at, length);
      const out = new Float32Array(length * 2);
      for (let i = 0; i < length; i++) {
        out[i * 2] = mix[0][i]!;
        out[i * 2 + 1] = mix[1][i]!;
      }
      await write(new Uint8Array(out.buffer));
    }
  } finally {
    engine.close();
  }
}
