import { transfer, wrap, type Remote } from 'comlink';
import type { EndReason, TrackName } from '@/core/take/take';
import type {
  LiveEvent,
  RecorderApi,
  SourceStream,
  TakeBeginning,
  TakeProgress,
  WorkerMessage,
} from './recorder-worker';

/** One source that is to be recorded. */
export interface RecordedSource {
  readonly name: TrackName;
  readonly track: MediaStreamTrack;
  /** Most frames a second; of no effect on sound. */
  readonly frameRate: number;
}

/** Pieces of sound that may wait in line: a busy moment must not lose any. */
const SOUND_QUEUE = 400;
const PICTURE_QUEUE = 4;
const SYNCS = 5;

type Processor<T> = { readonly readable: ReadableStream<T> };
declare const MediaStreamTrackProcessor: new <T>(options: {
  track: MediaStreamTrack;
  maxBufferSize?: number;
}) => Processor<T>;

/** Whether this browser hands out frames and samples as recording needs them. */
export const canRecord = (): boolean =>
  typeof MediaStreamTrackProcessor !== 'undefined' && typeof VideoEncoder !== 'undefined';

/** Records a take in a worker; the page only hands over sources and says what is done live. */
export class Recorder {
  private readonly worker = new Worker(new URL('./recorder-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly remote: Remote<RecorderApi> = wrap<RecorderApi>(this.worker);
  private copies: MediaStreamTrack[] = [];

  constructor(onProgress: (progress: TakeProgress) => void, onEnded: (reason: EndReason) => void) {
    this.worker.addEventListener(
      'message',
      ({ data }: MessageEvent<{ recorder?: WorkerMessage }>) => {
        const message = data.recorder;
        if (!message) return;
        if ('progress' in message) onProgress(message.progress);
        else onEnded(message.ended);
      },
    );
  }

  /**
   * Hands the sources over; their times are watched from now on, so that they are known when the
   * take begins.
   */
  async arm(sources: readonly RecordedSource[]): Promise<void> {
    this.release();
    for (let i = 0; i < SYNCS; i++) await this.remote.sync(performance.now());
    const streams = sources.map(({ name, track, frameRate }): SourceStream => {
      // A copy, so that stopping the recording leaves the preview running.
      const copy = track.clone();
      this.copies.push(copy);
      track.addEventListener('ended', () => copy.stop());
      return track.kind === 'video'
        ? {
            name,
            type: 'video',
            frameRate,
            readable: new MediaStreamTrackProcessor<VideoFrame>({
              track: copy,
              maxBufferSize: PICTURE_QUEUE,
            }).readable,
          }
        : {
            name,
            type: 'audio',
            readable: new MediaStreamTrackProcessor<AudioData>({
              track: copy,
              maxBufferSize: SOUND_QUEUE,
            }).readable,
          };
    });
    await this.remote.arm(
      transfer(
        streams,
        streams.map((s) => s.readable as unknown as Transferable),
      ),
    );
  }

  /** Begins a take. The answer is the page time at which its clock began. */
  begin = (beginning: TakeBeginning): Promise<number> => this.remote.begin(beginning);

  /** Notes what was done live, now. */
  event(event: LiveEvent, at = performance.now()): void {
    void this.remote.event(at, event);
  }

  pause = (): Promise<void> => this.remote.pause(performance.now());
  resume = (): Promise<void> => this.remote.resume(performance.now());

  /** Ends the take; false when the server could not be told and all is kept in this browser. */
  async finish(reason: EndReason): Promise<boolean> {
    const done = await this.remote.finish(reason);
    this.release();
    return done;
  }

  /** Lets the sources go again without a take. */
  async disarm(): Promise<void> {
    this.release();
    await this.remote.disarm();
  }

  private release(): void {
    for (const copy of this.copies) copy.stop();
    this.copies = [];
  }

  dispose(): void {
    this.release();
    this.worker.terminate();
  }
}
