import { fitClock, type ClockFit, type ClockPair } from '@/core/take/clock';
import { TrackClock } from '@/core/take/track-clock';
import type { Part } from './part';
import type { TakeClock } from './take-clock';
import type { TrackStats } from './video-track';

/**
 * Samples that were lost on the way are made up for by silence when the blocks' times jump by more
 * than this.
 */
const GAP_MS = 18;
/** Blocks over which the least late one is looked for. */
const WINDOW = 40;
/**
 * Devices' clocks drift by up to some 300 millionths; what drifts is not lost. Milliseconds for
 * each block of 10 ms.
 */
const DRIFT_MS = 0.003;
const PAIR_MS = 250;
/** So many blocks in so short a while are a steady flow. */
const STEADY_BLOCKS = 12;
const STEADY_MS = 400;

/** Writes the samples of one source to a part as 16-bit PCM, without holes, on the take's clock. */
export class AudioTrack {
  readonly clock = new TrackClock();
  private part: Part | null = null;
  private take: TakeClock | null = null;
  private first: number | null = null;
  /** Samples written, on the take's clock. */
  private samples = 0;
  private blocks = 0;
  private filled = 0;
  private lags: number[] = [];
  private baseline: number | null = null;
  private tolerance = GAP_MS;
  private skip = 0;
  private readonly arrivals: number[] = [];
  private readonly pairs: ClockPair[] = [];
  private pairEnd = 0;
  sampleRate = 0;
  channels = 0;
  private readonly reader: ReadableStreamDefaultReader<AudioData>;

  constructor(
    readable: ReadableStream<AudioData>,
    private readonly now: () => number,
    private readonly onEnd: (reason: string) => void,
  ) {
    this.reader = readable.getReader();
    void this.listen();
  }

  get stats(): TrackStats {
    return { written: this.blocks, dropped: this.filled };
  }

  /** How the samples lie on the take's clock; null before the first. */
  get fit(): ClockFit | null {
    return this.pairs.length ? fitClock(this.pairs) : null;
  }

  private async listen(): Promise<void> {
    for (;;) {
      const { done, value: data } = await this.reader
        .read()
        .catch(() => ({ done: true, value: undefined }) as const);
      if (done || !data) break;
      this.sampleRate ||= data.sampleRate;
      this.channels ||= Math.min(2, data.numberOfChannels);
      const device = data.timestamp / 1000;
      this.clock.note(device, this.now());
      this.arrivals.push(this.now());
      if (this.arrivals.length > STEADY_BLOCKS) this.arrivals.shift();
      if (this.take && this.part) this.write(data, this.clock.toMain(device));
      data.close();
    }
    if (this.take) this.onEnd('ended');
  }

  /** Whether blocks come one after the other, as they do once a device has warmed up. */
  get steady(): boolean {
    return this.arrivals.length === STEADY_BLOCKS && this.now() - this.arrivals[0]! < STEADY_MS;
  }

  start(take: TakeClock, part: Part): void {
    this.clock.fix();
    this.take = take;
    this.part = part;
  }

  /** After a pause, blocks that were cut make the count uneven; it is put right once, finely. */
  rejoin(): void {
    this.lags = [];
    this.tolerance = 12;
  }

  private write(data: AudioData, main: number): void {
    const time = this.take!.at(main);
    if (time === null) return;
    this.first ??= time;
    const sampleTime = (this.samples / this.sampleRate) * 1000;
    this.follow(sampleTime, time);
    const bytes = toPcm(data, this.channels);
    const frame = this.channels * 2;
    const skipped = Math.min(this.skip, data.numberOfFrames);
    this.skip -= skipped;
    this.part!.add(skipped ? bytes.subarray(skipped * frame) : bytes);
    this.samples += data.numberOfFrames - skipped;
    this.blocks++;
  }

  /**
   * Times of blocks jitter; the least late of the last ones tells how the samples lie, and whether
   * any are missing.
   */
  private follow(sampleTime: number, time: number): void {
    const lag = time - sampleTime;
    this.lags.push(lag);
    if (this.lags.length > WINDOW) this.lags.shift();
    const least = Math.min(...this.lags);
    if (this.baseline === null || (this.blocks < WINDOW && least < this.baseline))
      this.baseline = least;
    else if (this.lags.length === WINDOW) {
      const off = least - this.baseline;
      if (off > this.tolerance) {
        this.silence(Math.round((off / 1000) * this.sampleRate));
        this.filled++;
        this.lags = [];
      } else if (off < -this.tolerance) {
        this.skip = Math.round((-off / 1000) * this.sampleRate);
        this.lags = [];
      } else this.baseline += Math.max(-DRIFT_MS, Math.min(DRIFT_MS, off));
      this.tolerance = GAP_MS;
    }
    if (time >= this.pairEnd) {
      this.pairs.push({ device: sampleTime, arrival: time });
      this.pairEnd = time + PAIR_MS;
    } else {
      const last = this.pairs[this.pairs.length - 1]!;
      if (lag < last.arrival - last.device)
        this.pairs[this.pairs.length - 1] = { device: sampleTime, arrival: time };
    }
  }

  private silence(count: number): void {
    if (count <= 0) return;
    this.part!.add(new Uint8Array(count * this.channels * 2));
    this.samples += count;
  }

  stop(): void {
    this.take = null;
    void this.reader.cancel().catch(() => undefined);
  }
}

/** Interleaved 16-bit samples, little-endian. */
function toPcm(data: AudioData, channels: number): Uint8Array {
  const count = data.numberOfFrames;
  const out = new Int16Array(count * channels);
  const plane = new Float32Array(count);
  for (let channel = 0; channel < channels; channel++) {
    data.copyTo(plane, {
      planeIndex: Math.min(channel, data.numberOfChannels - 1),
      format: 'f32-planar',
    });
    for (let i = 0; i < count; i++)
      out[i * channels + channel] = Math.round(Math.max(-1, Math.min(1, plane[i]!)) * 32767);
  }
  return new Uint8Array(out.buffer);
}
