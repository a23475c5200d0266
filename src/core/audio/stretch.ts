import { clockOf } from '../project/clip-time';
import { silence, type SoundSegment, type Stereo } from './mix';
import { readAnywhere, type ReadSound } from './read-sound';
import { resampled } from './resample';

/**
 * A frame is 43 ms at 48 kHz: some periods of a low voice, and short enough not to be heard twice.
 */
const FRAME = 2048;
const HOP = FRAME / 2;
/** A frame may be taken from so far to either side of its place. */
const TOLERANCE = 512;
/** Every so many samples is enough for finding how two waves fit. */
const STEP = 4;

/** The rising half of a Hann window; with its mirror image it sums to 1. */
const RISE = Float32Array.from(
  { length: HOP },
  (_, i) => Math.sin((Math.PI / 2) * ((i + 0.5) / HOP)) ** 2,
);

/**
 * Plays a recording faster or slower with its pitch kept, by overlapping frames that are each taken
 * from where they fit on best to the one before: WSOLA (W. Verhelst and M. Roelands, "An
 * overlap-add technique based on waveform similarity", ICASSP 1993).
 */
export class TimeStretch {
  private buffer: { at: number; sound: Stereo } = { at: 0, sound: silence(0) };
  /** Number of the next frame, the source position of the last one, and output that is ready. */
  private frame = -1;
  private last = 0;
  private ready: { at: number; sound: Stereo } = { at: 0, sound: silence(0) };

  /**
   * @param source sample of the recording that output sample 0 stands for
   * @param speed recording samples for one output sample
   */
  constructor(
    private readonly read: ReadSound,
    private readonly source: number,
    private readonly speed: number,
  ) {}

  /** Output samples from `from` on; a jump starts anew. */
  async at(from: number, count: number): Promise<Stereo> {
    const out = silence(count);
    if (this.frame < 0 || from < this.ready.at || from > this.ready.at + this.ready.sound[0].length)
      this.start(Math.floor(from / HOP));
    let done = 0;
    while (done < count) {
      const { at, sound } = this.ready;
      const skip = from + done - at;
      const length = Math.min(count - done, sound[0].length - skip);
      if (length > 0) {
        for (const side of [0, 1] as const)
          out[side].set(sound[side].subarray(skip, skip + length), done);
        done += length;
      } else await this.next();
    }
    return out;
  }

  private start(frame: number): void {
    this.frame = frame;
    this.last = this.placeOf(frame) - HOP;
    this.ready = { at: frame * HOP, sound: silence(0) };
  }

  private readonly placeOf = (frame: number) => this.source + Math.round(frame * HOP * this.speed);

  /** Makes the next half frame of output: the last frame fades out while the next fades in. */
  private async next(): Promise<void> {
    const follow = this.last + HOP;
    const place = this.placeOf(this.frame);
    await this.fill(
      Math.min(follow, place - TOLERANCE),
      Math.max(follow, place + TOLERANCE) + FRAME,
    );
    const best = this.bestFit(follow, place);
    const sound = silence(HOP);
    for (const side of [0, 1] as const)
      for (let i = 0; i < HOP; i++)
        sound[side][i] =
          this.sample(side, follow + i) * RISE[HOP - 1 - i]! +
          this.sample(side, best + i) * RISE[i]!;
    this.ready = { at: this.frame * HOP, sound };
    this.last = best;
    this.frame++;
  }

  private sample(side: 0 | 1, at: number): number {
    return this.buffer.sound[side][at - this.buffer.at] ?? 0;
  }

  /**
   * The place near `place` at which the recording is most like what would follow, by normalised
   * cross-correlation.
   */
  private bestFit(follow: number, place: number): number {
    if (Math.abs(follow - place) <= 1) return follow;
    let best = place;
    let most = -Infinity;
    for (let at = place - TOLERANCE; at <= place + TOLERANCE; at += STEP) {
      let product = 0;
      let energy = 1e-6;
      for (let i = 0; i < HOP; i += STEP) {
        const candidate = this.sample(0, at + i) + this.sample(1, at + i);
        product += candidate * (this.sample(0, follow + i) + this.sample(1, follow + i));
        energy += candidate * candidate;
      }
      const fit = product / Math.sqrt(energy);
      if (fit > most) {
        most = fit;
        best = at;
      }
    }
    return best;
  }

  /** Sees to it that a stretch of the recording is at hand; forgets what lies before it. */
  private async fill(from: number, to: number): Promise<void> {
    const { at, sound } = this.buffer;
    const has = at + sound[0].length;
    const inOrder = from >= at && from <= has;
    const first = inOrder ? has : from;
    const more = first < to ? await readAnywhere(this.read, first, to - first) : silence(0);
    const kept = inOrder ? has - from : 0;
    const next = silence(kept + more[0].length);
    for (const side of [0, 1] as const) {
      if (kept) next[side].set(sound[side].subarray(from - at), 0);
      next[side].set(more[side], kept);
    }
    this.buffer = { at: from, sound: next };
  }
}

/**
 * Reads a segment's sound by samples after its start: at its speed with its pitch kept, or by the
 * clock that its speed makes up for.
 */
export function segmentReader(segment: SoundSegment, read: ReadSound): ReadSound {
  if (segment.speed === 1) return (from, count) => read(segment.source + from, count);
  if (clockOf(segment) !== null) return resampled(read, segment.source, segment.speed);
  const stretch = new TimeStretch(read, segment.source, segment.speed);
  return (from, count) => stretch.at(from, count);
}
