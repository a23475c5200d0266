import { releaseProxy, wrap, type Remote } from 'comlink';
import { SAMPLE_RATE } from '@/core/audio/mix';
import { secondsToTicks, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import type { ProjectNews } from './project-link';
import type { SoundWorker } from './sound-worker';

const PIECE = SAMPLE_RATE / 2;
/** So much is scheduled ahead, in seconds. */
const AHEAD = 1.5;

/** Plays the mix; its audio clock is the clock of the playback. */
export class SoundPlayer {
  private readonly worker = new Worker(new URL('./sound-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly remote: Remote<SoundWorker> = wrap<SoundWorker>(this.worker);
  private context: AudioContext | null = null;
  private run: {
    from: number;
    began: number;
    scheduled: number;
    nodes: Set<AudioBufferSourceNode>;
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
    void this.context.resume();
    const from = Math.round(ticksToSeconds(time) * SAMPLE_RATE);
    const first = await this.remote.mix(from, PIECE);
    if (id !== this.runId) return;
    this.run = { from, began: this.context.currentTime + 0.06, scheduled: 0, nodes: new Set() };
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

  close(): void {
    this.stop();
    this.remote[releaseProxy]();
    this.worker.terminate();
    void this.context?.close();
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

  private schedule(piece: readonly [Float32Array, Float32Array]): void {
    const { run, context } = this;
    if (!run || !context) return;
    const buffer = context.createBuffer(2, piece[0].length, SAMPLE_RATE);
    piece.forEach((channel, i) => buffer.copyToChannel(channel as Float32Array<ArrayBuffer>, i));
    const node = context.createBufferSource();
    node.buffer = buffer;
    node.connect(context.destination);
    node.onended = () => run.nodes.delete(node);
    const at = run.began + run.scheduled / SAMPLE_RATE;
    // Late pieces are cut at their front, so that sound never lags behind the clock.
    const late = Math.max(0, context.currentTime - at);
    if (late < buffer.duration) node.start(Math.max(at, context.currentTime), late);
    run.nodes.add(node);
    run.scheduled += piece[0].length;
  }
}
