import { envelopeAt } from '@/core/audio/envelope';
import { fromDecibels } from '@/core/audio/levels';
import { sourceTime } from '@/core/project/clip-time';
import type { Clip } from '@/core/project/model';
import type { FootageFacts } from '@/core/project/sources';
import { PEAKS_PER_SECOND, thumbCount } from '@/core/project/stand-ins';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { toTime } from './geometry';

/** Where a clip is drawn, in pixels of the canvas, and which part of it is in sight. */
export interface ClipPlace {
  /** Its start, which may lie before the canvas. */
  readonly left: number;
  readonly top: number;
  readonly height: number;
  /** Pixels from its start. */
  readonly from: number;
  readonly to: number;
  readonly scale: number;
}

/**
 * Small views of the recording along a clip, out of the strip that was made at ingest: each shows
 * the picture where it begins.
 */
export function paintThumbnails(
  context: CanvasRenderingContext2D,
  strip: HTMLImageElement,
  footage: FootageFacts,
  clip: Clip,
  { left, top, height, from, to, scale }: ClipPlace,
): void {
  const seconds = ticksToSeconds(footage.duration) || 1;
  const count = footage.kind === 'image' ? 1 : thumbCount(seconds);
  const each = Math.max(8, (height * footage.width) / footage.height);
  const cut = strip.naturalWidth / count;
  for (let i = Math.floor(from / each); i * each < to; i++) {
    const at = ticksToSeconds(sourceTime(clip, clip.start + toTime(i * each, scale)));
    const index = Math.min(count - 1, Math.max(0, Math.floor((at / seconds) * count)));
    const part = Math.min(1, (to - i * each) / each);
    context.drawImage(
      strip,
      ...[index * cut, 0, cut * part, strip.naturalHeight],
      ...([left + i * each, top, each * part, height] as const),
    );
  }
}

/** Highest level along a clip, as it sounds with a gain in decibels and with its envelope. */
export function paintWaveform(
  context: CanvasRenderingContext2D,
  peaks: Uint8Array,
  clip: Clip,
  gain: number,
  { left, top, height, from, to, scale }: ClipPlace,
): void {
  const { source, speed, envelope, muted } = clip;
  if (muted || !speed) return;
  const step = (PEAKS_PER_SECOND / scale) * speed;
  const begin = ticksToSeconds(source) * PEAKS_PER_SECOND;
  const plain = fromDecibels(gain);
  for (let x = Math.floor(from); x < to; x++) {
    const first = Math.floor(begin + x * step);
    const last = Math.max(first + 1, Math.floor(begin + (x + 1) * step));
    let peak = 0;
    for (let i = first; i < last; i++) peak = Math.max(peak, peaks[i] ?? 0);
    const level = envelope.length
      ? fromDecibels(
          gain + envelopeAt(envelope, secondsToTicks((begin + x * step) / PEAKS_PER_SECOND)),
        )
      : plain;
    // The square root lets quiet speech be seen beside loud.
    const bar = Math.max(1, Math.sqrt(Math.min(1, (peak * level) / 255)) * (height - 2));
    context.fillRect(left + x, top + (height - bar) / 2, 1, bar);
  }
}
