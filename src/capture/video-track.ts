import {
  EncodedPacket,
  EncodedVideoPacketSource,
  Mp4OutputFormat,
  Output,
  StreamTarget,
} from 'mediabunny';
import type { ClockFit } from '@/core/take/clock';
import { TrackClock } from '@/core/take/track-clock';
import { Pacing } from './pacing';
import type { Part } from './part';
import type { TakeClock } from './take-clock';

/** A fragment is written at each key frame: as much as a crash can cost. */
const KEY_MS = 900;
const LONGEST_QUEUE = 6;
/** Bits for each pixel of each second of full motion: text stays clean at this. */
const BITS_PER_PIXEL = 0.16;
const CODECS = ['avc1.640033', 'avc1.640028', 'avc1.42E033', 'avc1.42E028'];

export interface TrackStats {
  readonly written: number;
  readonly dropped: number;
}

/**
 * Encodes the frames of one source and writes them to a part, at their own times on the take's
 * clock.
 */
export class VideoTrack {
  readonly clock = new TrackClock();
  private encoder: VideoEncoder | null = null;
  private output: Output | null = null;
  private source: EncodedVideoPacketSource | null = null;
  private last: VideoFrame | null = null;
  private lastKey = -Infinity;
  private readonly pacing: Pacing;
  private written = 0;
  private dropped = 0;
  private first: number | null = null;
  private firstMain = 0;
  private timer: ReturnType<typeof setInterval> | null = null;
  private chain: Promise<unknown> = Promise.resolve();
  private take: TakeClock | null = null;
  private failed = false;
  private odd = false;
  private readonly reader: ReadableStreamDefaultReader<VideoFrame>;

  constructor(
    readable: ReadableStream<VideoFrame>,
    readonly rate: number,
    private readonly now: () => number,
    private readonly onEnd: (reason: string) => void,
  ) {
    this.pacing = new Pacing(rate);
    this.reader = readable.getReader();
    void this.listen();
  }

  get stats(): TrackStats {
    return { written: this.written, dropped: this.dropped };
  }

  /** How the written times lie on the take's clock; null before the first frame. */
  get fit(): ClockFit | null {
    if (this.first === null) return null;
    const { offset, rate } = this.clock.fit();
    return { offset: this.first + this.firstMain * (rate - 1) + offset, rate };
  }

  /** Size of the pictures that arrive; null before the first. */
  get size(): { width: number; height: number } | null {
    return this.last
      ? { width: this.last.displayWidth & ~1, height: this.last.displayHeight & ~1 }
      : null;
  }

  private async listen(): Promise<void> {
    for (;;) {
      const { done, value: frame } = await this.reader
        .read()
        .catch(() => ({ done: true, value: undefined }) as const);
      if (done || !frame) break;
      const device = frame.timestamp / 1000;
      this.clock.note(device, this.now());
      if (this.take) this.offer(frame, this.clock.toMain(device));
      this.last?.close();
      this.last = frame;
    }
    if (this.take) this.onEnd('ended');
  }

  /** Makes all ready to write. The size is that of the frames which arrive at that time. */
  async prepare(part: Part): Promise<void> {
    const size = this.size;
    if (!size) throw new Error('No picture arrives from this source.');
    this.odd =
      !!this.last && (this.last.displayWidth % 2 === 1 || this.last.displayHeight % 2 === 1);
    const config = await supportedConfig(size, this.rate);
    const target = new StreamTarget(
      new WritableStream({
        write: ({ data }) => part.add(data),
      }),
    );
    this.output = new Output({
      format: new Mp4OutputFormat({ fastStart: 'fragmented', minimumFragmentDuration: 0.4 }),
      target,
    });
    this.source = new EncodedVideoPacketSource('avc');
    this.output.addVideoTrack(this.source);
    await this.output.start();
    this.encoder = new VideoEncoder({
      output: (chunk, meta) => {
        const packet = EncodedPacket.fromEncodedChunk(chunk);
        this.chain = this.chain.then(() => this.source!.add(packet, meta)).catch(() => this.fail());
      },
      error: () => this.fail(),
    });
    this.encoder.configure(config);
  }

  /** Begins to write, at once. */
  start(take: TakeClock): void {
    this.clock.fix();
    this.take = take;
    // The picture that stands there at the start counts as its first one.
    if (this.last) this.encode(this.last, this.pacing.offer(0, this.full));
    this.timer = setInterval(() => this.catchUp(), Math.max(30, 1000 / this.rate));
  }

  private fail(): void {
    if (this.failed) return;
    this.failed = true;
    this.onEnd('failed');
  }

  private get full(): boolean {
    return (this.encoder?.encodeQueueSize ?? 0) > LONGEST_QUEUE;
  }

  private offer(frame: VideoFrame, main: number): void {
    const time = this.take!.at(main);
    if (time === null) return;
    const { full } = this;
    if (full) this.dropped++;
    this.encode(frame, this.pacing.offer(time, full));
  }

  private encode(frame: VideoFrame, time: number | null): void {
    const { encoder } = this;
    if (time === null || !encoder || encoder.state !== 'configured' || this.failed) return;
    if (this.first === null) {
      this.first = time;
      this.firstMain = this.now();
    }
    const stamped = new VideoFrame(frame, {
      timestamp: Math.round((time - this.first) * 1000),
      duration: Math.round(1e6 / this.rate),
      ...(this.odd
        ? {
            visibleRect: {
              x: 0,
              y: 0,
              width: frame.displayWidth & ~1,
              height: frame.displayHeight & ~1,
            },
          }
        : {}),
    });
    const keyFrame = time - this.lastKey >= KEY_MS;
    if (keyFrame) this.lastKey = time;
    encoder.encode(stamped, { keyFrame });
    stamped.close();
    this.written++;
  }

  /**
   * Writes the last picture when it was left out for want of room, or when nothing has come for a
   * while.
   */
  private catchUp(): void {
    const time = this.take?.at(this.now()) ?? null;
    if (time === null || !this.last) return;
    this.encode(this.last, this.pacing.again(time, this.full));
  }

  /**
   * Writes the last picture once more at the end, so that the recording lasts to it, and closes the
   * file.
   */
  async stop(): Promise<void> {
    const { take } = this;
    if (this.timer) clearInterval(this.timer);
    if (take && this.last && this.encoder)
      for (const time of this.pacing.end(take.now(this.now()))) this.encode(this.last, time);
    this.take = null;
    await this.encoder?.flush().catch(() => undefined);
    await this.chain;
    if (this.encoder?.state !== 'closed') this.encoder?.close();
    await this.output?.finalize().catch(() => undefined);
    this.encoder = null;
    void this.reader.cancel().catch(() => undefined);
    this.last?.close();
    this.last = null;
  }
}

async function supportedConfig(
  size: { width: number; height: number },
  frameRate: number,
): Promise<VideoEncoderConfig> {
  for (const codec of CODECS) {
    const config: VideoEncoderConfig = {
      codec,
      ...size,
      framerate: frameRate,
      bitrate: Math.round(size.width * size.height * frameRate * BITS_PER_PIXEL),
      latencyMode: 'realtime',
      avc: { format: 'avc' },
    };
    if ((await VideoEncoder.isConfigSupported(config).catch(() => null))?.supported) return config;
  }
  throw new Error(
    `This browser can’t encode pictures of ${size.width} by ${size.height} px while recording. Choose a smaller size.`,
  );
}
