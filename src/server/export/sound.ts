import {
  addToMix,
  planSound,
  SAMPLE_RATE,
  silence,
  tameClipping,
  type SoundSegment,
} from '@/core/audio/mix';
import { segmentReader, type ReadSound } from '@/core/audio/stretch';
import { ticksToSeconds } from '@/core/time/ticks';
import type { Range } from '@/core/time/ranges';
import { SoundStream } from '../media/sound-stream';
import type { RenderTask } from './render-frames';

const CHUNK = SAMPLE_RATE;

/** Sound of one recording, decoded in order from where it is first asked for. */
class OrderedSound {
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

  close(): void {
    this.stream?.close();
  }
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
  const segments = planSound(task.project, task.sources);
  const open = new Map<SoundSegment, { sound: OrderedSound; read: ReadSound }>();
  try {
    for (let at = first; at < last; at += CHUNK) {
      signal.throwIfAborted();
      const length = Math.min(CHUNK, last - at);
      const mix = silence(length);
      for (const segment of segments) {
        const original = task.originals[segment.footageId];
        if (!original || segment.start >= at + length || segment.end <= at) continue;
        const from = Math.max(at, segment.start);
        let heard = open.get(segment);
        if (!heard) {
          const sound = new OrderedSound(original.path);
          heard = { sound, read: segmentReader(segment, sound.read) };
          open.set(segment, heard);
        }
        const to = Math.min(at + length, segment.end);
        addToMix(mix, at, segment, await heard.read(from - segment.start, to - from), from);
        if (to === segment.end) {
          heard.sound.close();
          open.delete(segment);
        }
      }
      tameClipping(mix);
      const out = new Float32Array(length * 2);
      for (let i = 0; i < length; i++) {
        out[i * 2] = mix[0][i]!;
        out[i * 2 + 1] = mix[1][i]!;
      }
      await write(new Uint8Array(out.buffer));
    }
  } finally {
    for (const { sound } of open.values()) sound.close();
  }
}
