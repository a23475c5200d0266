import type { LaneMeter } from './lane-meter';
import { addToMix, silence, type SoundSegment, type Stereo } from './mix';
import type { SoundPlan } from './plan';
import { Chain, makeProcessor } from './processor';
import { readTick, TICK_SOUND } from './tick';
import type { ReadSound } from './read-sound';
import { segmentReader } from './stretch';

/** Sound of a recording that is open for reading. */
export interface OpenSound {
  readonly read: ReadSound;
  readonly close: () => void;
}

/** The sound of a press is made, not read. */
const TICK: OpenSound = { read: readTick, close: () => {} };

interface Reader {
  readonly key: string;
  readonly end: number;
  readonly read: ReadSound;
  readonly close: () => void;
}

const keyOf = ({ footageId, source, speed }: SoundSegment): string =>
  `${footageId} ${source} ${speed}`;

/**
 * Mixes a plan from any sample on. The one engine of the preview and the export: each brings how a
 * recording is opened.
 */
export class SoundEngine {
  /** Readers of segments by clip, those used last at the end. */
  private readonly readers = new Map<string, Reader>();
  /** What goes through no chain is mixed at once, in the order in which it begins. */
  private plain: readonly SoundSegment[] = [];
  private lanes: readonly Chain[] = [];
  private meter: LaneMeter | null = null;
  private master = new Chain([], (at, count) => this.sum(at, count));

  /**
   * @param open opens a recording; null for one that is not there, which is not heard
   * @param keep so many readers stay open that are not needed at the moment
   */
  constructor(
    private readonly open: (footageId: string) => OpenSound | null,
    private readonly keep: number,
  ) {}

  /** What is to be mixed from now on. Readers of what stays the same stay open. */
  setPlan(plan: SoundPlan): void {
    this.plain = plan.lanes
      .flatMap(({ segments, chain }) => (chain.length ? [] : segments))
      .sort((a, b) => a.start - b.start);
    this.lanes = plan.lanes.flatMap(({ segments, chain }) =>
      chain.length
        ? [new Chain(chain.map(makeProcessor), (at, n) => this.mixOf(segments, at, n))]
        : [],
    );
    this.master = new Chain(plan.master.map(makeProcessor), (at, n) => this.sum(at, n));
  }

  /**
   * Samples of the mix from a timeline sample on.
   *
   * @param meter hears what each lane brings to it
   */
  async mix(at: number, count: number, meter: LaneMeter | null = null): Promise<Stereo> {
    this.meter = meter;
    const out = await this.master.read(at, count);
    this.meter = null;
    this.closeSpare(at + count);
    return out;
  }

  /** Closes all that is open. */
  close(): void {
    for (const { close } of this.readers.values()) close();
    this.readers.clear();
  }

  private async sum(at: number, count: number): Promise<Stereo> {
    const out = await this.mixOf(this.plain, at, count);
    for (const lane of this.lanes) {
      const block = await lane.read(at, count);
      for (const side of [0, 1] as const)
        for (let i = 0; i < count; i++) out[side][i]! += block[side][i]!;
    }
    return out;
  }

  private async mixOf(segments: readonly SoundSegment[], at: number, count: number) {
    const out = silence(count);
    for (const segment of segments) {
      if (segment.start >= at + count || segment.end <= at) continue;
      const reader = this.readerOf(segment);
      if (!reader) continue;
      const from = Math.max(at, segment.start);
      const to = Math.min(at + count, segment.end);
      const sound = await reader.read(from - segment.start, to - from);
      addToMix(out, at, segment, sound, from);
      this.meter?.hear(segment, sound, from);
    }
    return out;
  }

  private readerOf(segment: SoundSegment): Reader | null {
    const { clipId, footageId, end } = segment;
    const key = keyOf(segment);
    const before = this.readers.get(clipId);
    this.readers.delete(clipId);
    if (before?.key === key) {
      const reader = { ...before, end };
      this.readers.set(clipId, reader);
      return reader;
    }
    before?.close();
    const sound = footageId === TICK_SOUND ? TICK : this.open(footageId);
    if (!sound) return null;
    const reader = { key, end, read: segmentReader(segment, sound.read), close: sound.close };
    this.readers.set(clipId, reader);
    return reader;
  }

  /** Closes readers that are over by a sample, but for the last few. */
  private closeSpare(at: number): void {
    const over = [...this.readers].filter(([, { end }]) => end <= at);
    for (const [clipId, { close }] of over.slice(0, Math.max(0, over.length - this.keep))) {
      close();
      this.readers.delete(clipId);
    }
  }
}
