import { expose } from 'comlink';
import { call, requestFor } from '@/contract/call';
import { beginTake, closeTake, type TakeBegun } from '@/contract/takes';
import type { TakeSetup, TrackSetup } from '@/core/take/setup';
import type { EndReason, TakeEvent, TakeKind, TrackName } from '@/core/take/take';
import { AudioTrack } from './audio-track';
import { Part } from './part';
import { localTake, openPart, removeLocalTake, writeNote } from './part-store';
import { putTakeAway } from './ended-take';
import { TakeClock } from './take-clock';
import type { ServerState } from './uploader';
import { VideoTrack } from './video-track';

/** A source as it comes to the worker. */
export type SourceStream =
  | {
      readonly name: TrackName;
      readonly type: 'video';
      readonly readable: ReadableStream<VideoFrame>;
      readonly frameRate: number;
    }
  | {
      readonly name: TrackName;
      readonly type: 'audio';
      readonly readable: ReadableStream<AudioData>;
    };

/** How a take is going, several times a second. */
export interface TakeProgress {
  readonly ms: number;
  /** Bytes that are not at the server yet. */
  readonly waiting: number;
  readonly free: number | null;
  readonly server: ServerState;
  /** Whether what is recorded outlives a crash of the tab while the server is away. */
  readonly local: boolean;
  readonly tracks: readonly {
    readonly name: TrackName;
    readonly written: number;
    readonly dropped: number;
  }[];
}

export interface TakeBeginning {
  readonly projectId: string;
  readonly takeId: string;
  readonly stepId: string | null;
  readonly kind: TakeKind;
  readonly setup: Omit<TakeSetup, 'tracks'> & {
    readonly tracks: readonly { readonly name: TrackName; readonly label: string }[];
  };
}

/** What the worker tells by itself. */
export type WorkerMessage = { readonly progress: TakeProgress } | { readonly ended: EndReason };

const PROGRESS_MS = 250;
const CLOCK_MS = 1000;
const ARRIVAL_MS = 8000;
/** Less than this much room ends a take while there is still room to close it. */
const LEAST_FREE = 64 << 20;
const AWAY_RETRY_MS = 1000;
const DRAIN_MS = 20_000;

const tell = (message: WorkerMessage) => postMessage({ recorder: message });

class RecorderWorker {
  private shift = 0;
  private videos = new Map<TrackName, VideoTrack>();
  private audios = new Map<TrackName, AudioTrack>();
  private parts = new Map<string, Part>();
  private clock: TakeClock | null = null;
  private takeId: string | null = null;
  private server: ServerState = 'here';
  private free: number | null = null;
  private timers: ReturnType<typeof setInterval>[] = [];
  private local = false;
  private ended = false;
  private pending: Promise<void> = Promise.resolve();

  /** Times of the page, as all times of a take are, on this worker's clock. */
  sync(pageNow: number): void {
    const shift = pageNow - performance.now();
    // The message took a while; the largest of several is the nearest.
    this.shift = this.shift === 0 ? shift : Math.max(this.shift, shift);
  }

  private now = (): number => performance.now() + this.shift;

  /** Takes the sources over and watches their times from now on. */
  arm(sources: SourceStream[]): void {
    this.disarm();
    for (const source of sources) {
      const onEnd = (reason: string) => this.onTrackEnd(source.name, reason);
      if (source.type === 'video')
        this.videos.set(
          source.name,
          new VideoTrack(source.readable, source.frameRate, this.now, onEnd),
        );
      else this.audios.set(source.name, new AudioTrack(source.readable, this.now, onEnd));
    }
  }

  disarm(): void {
    for (const track of this.videos.values()) void track.stop();
    for (const track of this.audios.values()) track.stop();
    this.videos.clear();
    this.audios.clear();
  }

  private onTrackEnd(track: TrackName, reason: string): void {
    if (this.ended || !this.clock) return;
    this.ended = true;
    tell({
      ended: reason === 'failed' ? 'failed' : track === 'screen' ? 'sharing ended' : 'unplugged',
    });
  }

  /** Waits until something arrives from every source. */
  private async arrival(): Promise<void> {
    const until = performance.now() + ARRIVAL_MS;
    const missing = () => [
      ...[...this.videos].filter(([, t]) => !t.size).map(([name]) => name),
      ...[...this.audios].filter(([, t]) => !t.steady).map(([name]) => name),
    ];
    while (missing().length) {
      if (performance.now() > until)
        throw new Error(
          missing().length > 1 || missing()[0] !== 'voice'
            ? `Nothing arrives from: ${missing().join(', ')}. Switch it off and on again, or choose another device.`
            : 'Nothing arrives from the microphone. Choose another one, or switch it off.',
        );
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
  }

  /**
   * Begins a take; settles when everything runs. The answer is the page time at which the take's
   * clock began. A take that can't begin leaves nothing behind.
   */
  async begin(beginning: TakeBeginning): Promise<number> {
    try {
      return await this.beginTake(beginning);
    } catch (error) {
      for (const part of this.parts.values()) part.close();
      this.parts.clear();
      this.clock = null;
      await removeLocalTake(beginning.takeId);
      if (this.takeId) await this.takeBack(this.takeId);
      this.takeId = null;
      throw error;
    }
  }

  /** Has the server put away a take that it was told of. */
  private async takeBack(takeId: string): Promise<void> {
    const params = { id: takeId };
    await call(closeTake, { params, body: { reason: 'failed' } }).catch(() => null);
    await putTakeAway(takeId).catch(() => null);
  }

  private async beginTake({
    projectId,
    takeId,
    stepId,
    kind,
    setup,
  }: TakeBeginning): Promise<number> {
    await this.arrival();
    const tracks = setup.tracks.flatMap(({ name, label }): TrackSetup[] => {
      const video = this.videos.get(name);
      const audio = this.audios.get(name);
      if (video)
        return [
          {
            name,
            type: 'video',
            label,
            ...video.size!,
            frameRate: video.rate,
            sampleRate: 0,
            channels: 0,
          },
        ];
      if (audio)
        return [
          {
            name,
            type: 'audio',
            label,
            width: 0,
            height: 0,
            frameRate: 0,
            sampleRate: audio.sampleRate,
            channels: audio.channels,
          },
        ];
      return [];
    });
    const body = { id: takeId, stepId, kind, setup: { ...setup, tracks } };
    const folder = await localTake(takeId, true);
    this.local = !!folder;
    await writeNote(folder, JSON.stringify({ projectId, body })).catch(() => (this.local = false));
    await this.announce(projectId, body);
    this.takeId = takeId;
    this.ended = false;
    for (const name of [...tracks.map((track) => track.name), 'events'])
      this.parts.set(
        name,
        new Part(
          name,
          await openPart(folder, name),
          takeId,
          (state, free) => this.onServer(state, free),
          () => this.onServer('full', 0),
        ),
      );
    for (const [name, track] of this.videos) await track.prepare(this.parts.get(name)!);
    const began = this.now();
    this.clock = new TakeClock(began);
    for (const track of this.videos.values()) track.start(this.clock);
    for (const [name, track] of this.audios) track.start(this.clock, this.parts.get(name)!);
    this.timers = [
      setInterval(() => this.report(), PROGRESS_MS),
      setInterval(() => {
        if (this.takeId) this.noteClocks();
      }, CLOCK_MS),
    ];
    return began;
  }

  /**
   * Tells the server of the take. While it is away the recording goes on here and the server learns
   * of it later.
   */
  private async announce(projectId: string, body: TakeBegun): Promise<void> {
    const send = () =>
      fetch(...requestFor(beginTake, { params: { id: projectId }, body })).catch(() => null);
    const response = await send();
    if (response?.ok) return;
    if (response && response.status < 500) {
      const said = ((await response.json().catch(() => null)) as { detail?: string } | null)
        ?.detail;
      throw new Error(said ?? 'The server did not accept the take.');
    }
    this.server = 'away';
    this.pending = (async () => {
      for (;;) {
        await new Promise((resolve) => setTimeout(resolve, AWAY_RETRY_MS));
        const again = await send();
        if (again?.ok) return;
        if (!this.clock) return;
      }
    })();
  }

  private onServer(state: ServerState, free: number | null): void {
    this.server = state;
    if (free !== null) this.free = free;
    const full = state === 'full' || (free !== null && free < LEAST_FREE);
    if (this.ended || !this.clock) return;
    if (full || state === 'ended') {
      this.ended = true;
      tell({ ended: full ? 'disk full' : 'stopped' });
    }
  }

  private report(): void {
    if (!this.clock) return;
    const tracks = [...this.videos, ...this.audios].map(([name, track]) => ({
      name,
      ...track.stats,
    }));
    tell({
      progress: {
        ms: this.clock.now(this.now()),
        waiting: this.waiting(),
        free: this.free,
        server: this.server,
        local: this.local,
        tracks,
      },
    });
  }

  private waiting = () => [...this.parts.values()].reduce((sum, part) => sum + part.waiting, 0);

  /** Notes what was done live. `at` is a page time; what happens in a pause counts at its end. */
  event(at: number, event: DistributiveOmit<TakeEvent, 't'>): void {
    const time = this.clock?.at(at) ?? this.clock?.now(at);
    if (time === undefined) return;
    this.write({ ...event, t: Math.round(time * 10) / 10 } as TakeEvent);
  }

  private write(event: TakeEvent): void {
    this.parts.get('events')?.add(new TextEncoder().encode(`${JSON.stringify(event)}\n`));
  }

  private noteClocks(): void {
    const t = this.clock?.now(this.now()) ?? 0;
    for (const [track, each] of [...this.videos, ...this.audios]) {
      const { fit, stats } = each;
      if (fit)
        this.write({
          t,
          type: 'clock',
          track,
          offset: fit.offset,
          rate: fit.rate,
          pieces: stats.written,
          dropped: stats.dropped,
        });
    }
  }

  pause(at: number): void {
    this.clock?.pause(at);
    this.report();
  }

  resume(at: number): void {
    this.clock?.resume(at);
    for (const track of this.audios.values()) track.rejoin();
    this.event(at, { type: 'join' });
  }

  /**
   * Ends the take: files are closed, sent, and the server told why. False when the server is away;
   * all is then kept here.
   */
  async finish(reason: EndReason): Promise<boolean> {
    const { takeId } = this;
    if (!takeId) return true;
    this.ended = true;
    for (const timer of this.timers) clearInterval(timer);
    await Promise.all([...this.videos.values()].map((track) => track.stop()));
    for (const track of this.audios.values()) track.stop();
    this.noteClocks();
    for (const part of this.parts.values()) part.flush();
    const until = performance.now() + DRAIN_MS;
    this.clock = null;
    await Promise.race([this.pending, new Promise((resolve) => setTimeout(resolve, DRAIN_MS))]);
    while (
      this.waiting() > 0 &&
      performance.now() < until &&
      this.server !== 'full' &&
      this.server !== 'ended'
    )
      await new Promise((resolve) => setTimeout(resolve, 50));
    const complete = this.waiting() <= 0;
    // A take is not closed while something of it could still be sent: what is here would then never
    // be taken.
    const sendable = !complete && this.server !== 'full' && this.server !== 'ended';
    const closed = sendable
      ? null
      : await call(closeTake, { params: { id: takeId }, body: { reason } }).catch(() => null);
    for (const part of this.parts.values()) part.close();
    this.parts.clear();
    this.videos.clear();
    this.audios.clear();
    this.takeId = null;
    // Of a closed take nothing more is taken, so that nothing of it needs to be kept here.
    if (closed) await removeLocalTake(takeId);
    return !!closed;
  }
}

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
export type LiveEvent = DistributiveOmit<TakeEvent, 't'>;
export type RecorderApi = RecorderWorker;

expose(new RecorderWorker());
