import { addToMix, planSound, SAMPLE_RATE, silence, tameClipping, type SoundSegment } from '@/core/audio/mix';
import { ticksToSeconds } from '@/core/time/ticks';
import type { Range } from '@/core/time/ranges';
import { SoundStream } from '../media/sound-stream';
import type { RenderTask } from './render-frames';

const CHUNK = SAMPLE_RATE;

/** Mixes a stretch of the timeline and hands it over in second-long pieces of interleaved stereo, 32-bit float. */
export async function mixSound(
  task: Pick<RenderTask, 'project' | 'sources' | 'originals'>,
  range: Range,
  write: (bytes: Uint8Array) => Promise<void>,
  signal: AbortSignal,
): Promise<void> {
  const first = Math.round(ticksToSeconds(range.start) * SAMPLE_RATE);
  const last = Math.round(ticksToSeconds(range.end) * SAMPLE_RATE);
  const segments = planSound(task.project, task.sources);
  const open = new Map<SoundSegment, SoundStream>();
  try {
    for (let at = first; at < last; at += CHUNK) {
      signal.throwIfAborted();
      const length = Math.min(CHUNK, last - at);
      const mix = silence(length);
      for (const segment of segments) {
        const original = task.originals[segment.footageId];
        if (!original || segment.start >= at + length || segment.end <= at) continue;
        const from = Math.max(at, segment.start);
        let stream = open.get(segment);
        if (!stream) {
          stream = new SoundStream(original.path, segment.source + (from - segment.start));
          open.set(segment, stream);
        }
        const to = Math.min(at + length, segment.end);
        addToMix(mix, at, segment, await stream.read(to - from), from);
        if (to === segment.end) {
          stream.close();
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
    for (const stream of open.values()) stream.close();
  }
}
