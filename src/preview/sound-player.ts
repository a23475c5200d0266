import { releaseProxy, wrap, type Remote } from 'comlink';
import { toDecibels } from '@/core/audio/levels';
import { METER_WINDOW, type LanePeaks } from '@/core/audio/lane-meter';
import { SAMPLE_RATE } from '@/core/audio/mix';
import { secondsToTicks, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import type { ProjectNews } from './project-link';
import type { MixedPiece, SoundWorker } from './sound-worker';

const PIECE = SAMPLE_RATE / 2;
/** So much is scheduled ahead, in seconds. */
const AHEAD = 1.5;
/** Samples that the meter looks at, about as many as a picture of 30 a second lasts. */
const METER_SAMPLES = 2048;
/** Pieces whose peaks are kept: those scheduled ahead, the one that is heard, and some to spare. */
const KEPT_PEAKS = 8;

/** Plays the mix; its audio clock is the clock of the playback. */
export class SoundPlayer {
  private readonly worker = new Worker(new URL('./sound-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly remote: Remote<SoundWorker> = wrap<SoundWorker>(this.worker);
  private context: AudioContext | null = null;
  private out: { analyser: AnalyserNode; gain: GainNode } | null = null;
  private volume = 1;
  private readonly heard = new Float32Array(METER_SAMPLES);
  private run: {
    from: number;
    began: number;
    scheduled: number;
    nodes: Set<AudioBufferSourceNode>;
    /** The peaks of each piece that was scheduled lately, by the sample of the run it begins at. */
    peaks: Map<number, LanePeaks>;
  } | null = null;
  private runId = 0;

  /** Takes in what is new of the project. */
  async receive(news: ProjectNews): Promise<void> {
    await this.remote.receive(news);
  }

  /**
   * Starts to play at a time; settles when the first sound is on its way. Must follow a press or
   * key of the user.
   */
  async play(time: Ticks): Promise<void> {
    this.stop();
    const id = ++this.runId;
    this.context ??= new AudioContext({ sampleRate: SAMPLE_RATE, latencyHint: 'interactive' });
    this.out ??= this.connect(this.context);
    void this.context.resume();
    const from = Math.round(ticksToSeconds(time) * SAMPLE_RATE);
    const first = await this.remote.mix(from, PIECE);
    if (id !== this.runId) return;
    this.run = {
      from,
      began: this.context.currentTime + 0.06,
      scheduled: 0,
      nodes: new Set(),
      peaks: new Map(),
    };
    this.schedule(first);
    void this.feed(id);
  }

  stop(): void {
    this.runId++;
    for (const node of this.run?.nodes ?? []) node.stop();
    this.run = null;
  }

  /** The time that is heard now; null while nothing plays. */
  now(): Ticks | null {
    const { run, context } = this;
    if (!run || !context) return null;
    const heard = Math.max(0, context.currentTime - run.began);
    return secondsToTicks(run.from / SAMPLE_RATE + heard);
  }

  /** How loud it is, 0 to 1. */
  setVolume(volume: number): void {
    this.volume = volume;
    this.out?.gain.gain.setTargetAtTime(volume, this.context!.currentTime, 0.01);
  }

  /** The peak of the mix of the last moment in dBFS, before its volume; -Infinity in silence. */
  get level(): number {
    if (!this.out || !this.run) return -Infinity;
    this.out.analyser.getFloatTimeDomainData(this.heard);
    return toDecibels(this.heard.reduce((peak, v) => Math.max(peak, Math.abs(v)), 0));
  }

  /** The peak that a lane has at this moment in dBFS; -Infinity while nothing plays. */
  laneLevel(laneId: string): number {
    const { run, context } = this;
    if (!run || !context) return -Infinity;
    const heard = Math.max(0, Math.floor((context.currentTime - run.began) * SAMPLE_RATE));
    const piece = heard - (heard % PIECE);
    const peaks = run.peaks.get(piece)?.[laneId];
    return toDecibels(peaks?.[Math.floor((heard - piece) / METER_WINDOW)] ?? 0);
  }

  close(): void {
    this.stop();
    this.remote[releaseProxy]();
    this.worker.terminate();
    void this.context?.close();
  }

  /** The way of the sound: measured, made as loud as is wanted, heard. */
  private connect(context: AudioContext): NonNullable<SoundPlayer['out']> {
    const analyser = new AnalyserNode(context, { fftSize: METER_SAMPLES });
    const gain = new GainNode(context, { gain: this.volume });
    analyser.connect(gain).connect(context.destination);
    return { analyser, gain };
  }

  private async feed(id: number): Promise<void> {
    while (id === this.runId && this.run) {
      const { run } = this;
      if (run.scheduled / SAMPLE_RATE - (this.context!.currentTime - run.began) > AHEAD) {
        await new Promise((resolve) => setTimeout(resolve, 120));
        continue;
      }
      const piece = await this.remote.mix(run.from + run.scheduled, PIECE);
      if (id === this.runId) this.schedule(piece);
    }
  }

  private schedule({ sound: piece, peaks }: MixedPiece): void {
    const { run, context } = this;
    if (!run || !context) return;
    const buffer = context.createBuffer(2, piece[0].length, SAMPLE_RATE);
    piece.forEach((channel, i) => buffer.copyToChannel(channel as Float32Array<ArrayBuffer>, i));
    const node = context.createBufferSource();
    node.buffer = buffer;
    node.connect(this.out!.analyser);
    node.onended = () => run.nodes.delete(node);
    const at = run.began + run.scheduled / SAMPLE_RATE;
    // Late pieces are cut at their front, so that sound never lags behind the clock.
    const late = Math.max(0, context.currentTime - at);
    if (late < buffer.duration) node.start(Math.max(at, context.currentTime), late);
    run.nodes.add(node);
    run.peaks.set(run.scheduled, peaks);
    if (run.peaks.size > KEPT_PEAKS) run.peaks.delete(run.peaks.keys().next().value!);
    run.scheduled += piece[0].length;
  }
}
