import { releaseProxy, transfer, wrap, type Remote } from 'comlink';
import type { PlanView } from '@/core/frame/plan-frame';
import type { MatteGrade } from '@/core/key/grade';
import type { TakeColors } from '@/core/key/match-look';
import type { Project } from '@/core/project/model';
import { projectDuration } from '@/core/project/query';
import type { Sources } from '@/core/project/sources';
import { frameAt, frameDuration, frameStart, secondsToTicks, type Ticks } from '@/core/time/ticks';
import { ProjectSender } from './project-link';
import type { PictureWorker } from './picture-worker';
import { SoundPlayer } from './sound-player';

export interface PlayerEvents {
  readonly onTime: (time: Ticks) => void;
  readonly onRate: (rate: number) => void;
  /** Frames that could not be shown in time since play was pressed, and those that were. */
  readonly onFrames: (dropped: number, shown: number) => void;
  readonly onError: (message: string) => void;
}

/** Lines of the picture: paused and while the machine keeps up, and otherwise. */
const LINES = 720;
const FEWER_LINES = 540;
/** So many dropped frames within so many shown ones are a machine that does not keep up. */
const LATE = { dropped: 6, shown: 30 };

/** Shows and plays a project: draws in a worker, hears by the audio clock. */
export class Player {
  private readonly worker = new Worker(new URL('./picture-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly remote: Remote<PictureWorker> = wrap<PictureWorker>(this.worker);
  private readonly sound = new SoundPlayer();
  private readonly ready: Promise<void>;
  private project: Project | null = null;
  private view: PlanView = {};
  private time: Ticks = 0;
  private rate = 0;
  private clock: { at: number; time: Ticks } | null = null;
  private busy = false;
  private stale = false;
  private shownFrame = -1;
  private dropped = 0;
  private shown = 0;
  private lately = 0;
  private lines = LINES;
  private chosenLines: number | null = null;
  private loop = 0;
  private closed = false;
  private readonly sender = new ProjectSender();

  constructor(
    canvas: HTMLCanvasElement,
    fontsUrl: string,
    private readonly events: PlayerEvents,
  ) {
    const offscreen = canvas.transferControlToOffscreen();
    this.ready = this.remote.start(transfer(offscreen, [offscreen]), fontsUrl);
    this.ready.catch((error: unknown) =>
      events.onError(error instanceof Error ? error.message : String(error)),
    );
  }

  /** What is to be shown from now on. */
  async setProject(project: Project, sources: Sources): Promise<void> {
    this.project = project;
    await this.ready;
    const news = this.sender.news(project, sources);
    if (!news) return;
    await Promise.all([this.remote.receive(news), this.sound.receive(news)]);
    this.refresh();
  }

  /** The time that is shown, or played. */
  get at(): Ticks {
    return this.time;
  }

  setView(view: PlanView): void {
    this.view = view;
    this.refresh();
  }

  seek(time: Ticks): void {
    this.time = time;
    if (this.rate) void this.play(this.rate);
    else this.refresh();
  }

  /** Plays at a rate: 1 with sound, others (also backwards) without; 0 pauses. */
  async play(rate: number): Promise<void> {
    if (!this.project) return;
    this.sound.stop();
    this.clock = null;
    this.rate = rate;
    this.events.onRate(rate);
    cancelAnimationFrame(this.loop);
    if (!rate) return this.refresh();
    this.dropped = this.shown = this.lately = 0;
    this.events.onFrames(0, 0);
    this.shownFrame = -1;
    const end = projectDuration(this.project);
    if (rate > 0 && this.time >= end - frameDuration(this.project.canvas.frameRate)) this.time = 0;
    if (rate === 1) await this.sound.play(this.time);
    else this.clock = { at: performance.now(), time: this.time };
    if (this.rate === rate) this.loop = requestAnimationFrame(this.tick);
  }

  /** How loud it plays, 0 to 1. */
  setVolume(volume: number): void {
    this.sound.setVolume(volume);
  }

  /** The peak of the mix that is heard in dBFS, before the volume. */
  get level(): number {
    return this.sound.level;
  }

  /** The peak that a lane has at the moment in dBFS, before the volume. */
  laneLevel(laneId: string): number {
    return this.sound.laneLevel(laneId);
  }

  /** So many lines the shorter side of the picture has; null fits them to the machine. */
  setLines(lines: number | null): void {
    this.chosenLines = lines;
    this.lines = lines ?? LINES;
    this.refresh();
  }

  /** Colour of the recording under a spot of the picture, given as shares of its size. */
  async pickColor(x: number, y: number): Promise<string | null> {
    return this.remote.pickColor(x, y);
  }

  /**
   * How much a callout differs from what lies beneath it over all of its time, where it does so
   * least, as a contrast ratio; null for one that needs not.
   */
  async contrastBeneath(id: string): Promise<number | null> {
    await this.ready;
    return this.remote.contrastBeneath(id);
  }

  /** Grades the presenter's key at a time; null where there is nothing to grade. */
  async gradeKey(time: Ticks): Promise<MatteGrade | null> {
    await this.ready;
    return this.remote.gradeKey(time);
  }

  /** The presenter's colours as recorded, at several times; null where they can't be told. */
  async colorsAt(times: readonly Ticks[]): Promise<(TakeColors | null)[]> {
    await this.ready;
    return this.remote.colorsAt(times);
  }

  close(): void {
    this.closed = true;
    cancelAnimationFrame(this.loop);
    this.sound.close();
    this.remote[releaseProxy]();
    this.worker.terminate();
  }

  private readonly tick = (): void => {
    if (!this.rate || !this.project || this.closed) return;
    this.loop = requestAnimationFrame(this.tick);
    const end = projectDuration(this.project);
    const now = this.clock
      ? this.clock.time + secondsToTicks(((performance.now() - this.clock.at) / 1000) * this.rate)
      : this.sound.now();
    if (now === null) return;
    this.time = Math.min(Math.max(0, now), end);
    if ((this.rate > 0 && this.time >= end) || (this.rate < 0 && this.time <= 0)) {
      void this.play(0);
      return;
    }
    const frame = frameAt(this.time, this.project.canvas.frameRate);
    if (this.busy || frame === this.shownFrame) return;
    this.events.onTime(this.time);
    this.count(frame);
    this.shownFrame = frame;
    void this.draw(true);
  };

  /**
   * Keeps account of frames shown and left out, and goes over to a smaller picture when too many
   * are.
   */
  private count(frame: number): void {
    this.shown++;
    if (this.shownFrame >= 0 && Math.abs(this.rate) === 1) {
      const missed = Math.max(0, Math.abs(frame - this.shownFrame) - 1);
      this.dropped += missed;
      this.lately = this.shown % LATE.shown === 0 ? 0 : this.lately + missed;
      if (this.lately > LATE.dropped && this.chosenLines === null)
        this.lines = Math.min(this.lines, FEWER_LINES);
      if (missed) this.events.onFrames(this.dropped, this.shown);
    }
  }

  /** Draws the paused picture, now or as soon as the one before is done. */
  private refresh(): void {
    if (this.rate) return;
    if (this.busy) this.stale = true;
    else void this.draw(false);
  }

  private async draw(playing: boolean): Promise<void> {
    const { project } = this;
    if (!project || this.closed) return;
    this.busy = true;
    const { width, height, frameRate } = project.canvas;
    const scale = Math.min(
      1,
      (playing ? this.lines : (this.chosenLines ?? LINES)) / Math.min(width, height),
    );
    const even = (n: number) => Math.max(2, Math.round((n * scale) / 2) * 2);
    const time = frameStart(frameAt(this.time, frameRate), frameRate);
    try {
      await this.ready;
      const view = this.view;
      const more = await this.remote.show(time, even(width), even(height), view, playing);
      // What rests is drawn again until its text is rebuilt throughout.
      if (more && !this.rate) this.stale = true;
    } catch (error) {
      if (!this.closed) this.events.onError(error instanceof Error ? error.message : String(error));
    }
    this.busy = false;
    if (this.stale) {
      this.stale = false;
      this.refresh();
    }
  }
}
