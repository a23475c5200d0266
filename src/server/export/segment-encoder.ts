import { randomUUID } from 'node:crypto';
import { readFileSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { ExportSettings } from '@/contract/exports';
import { frameDuration, ticksToSeconds } from '@/core/time/ticks';
import { PipeWriter } from '../media/pipe';
import { problem } from '../problem';
import { cutsAnywhere, rawInput, segmentContainer, videoEncoder } from './encode';
import type { Segment } from './segment-work';

/** Segments that one process is told of at most: where it is to cut stands in its arguments. */
const MOST = 250;

/** A process at work. */
interface Run {
  readonly writer: PipeWriter;
  /** What it may write, one after the other. */
  readonly segments: readonly Segment[];
  /** Path of the file in which it notes each file that it has completed, a line each. */
  readonly list: string;
  readonly pieceOf: (index: number) => string;
  /** How many have been begun, and how many are complete and have their name. */
  begun: number;
  kept: number;
}

/**
 * Encodes pictures into segments, each a file that appears under its name only when it is whole.
 * One process writes as many neighbours as follow each other and cuts at key frames: starting one
 * takes a tenth of a second, and at its end it holds back pictures.
 */
export class SegmentEncoder {
  private run: Run | null = null;

  constructor(
    private readonly settings: ExportSettings,
    private readonly threads: number,
  ) {}

  /**
   * Makes ready for the pictures of a segment; those of the one before must have been written.
   *
   * @param following other segments in their order, of which some may come next
   * @throws Problem when the one before could not be completed
   */
  async begin(segment: Segment, following: readonly Segment[]): Promise<void> {
    const { run } = this;
    if (run?.segments[run.begun]?.first === segment.first) {
      run.begun++;
      this.keepWhole(run);
      return;
    }
    await this.finish();
    this.run = this.start(
      cutsAnywhere(this.settings.format) ? neighbours([segment, ...following]) : [segment],
    );
  }

  /** @throws Problem with the process's reason when it ended early */
  write(picture: Uint8Array): void {
    this.run!.writer.write(picture);
  }

  /** Completes what was begun. */
  async finish(): Promise<void> {
    const { run } = this;
    if (!run) return;
    await run.writer.finish();
    this.keepWhole(run);
    if (run.kept !== run.begun) throw problem('encoder-cut');
    this.close();
  }

  /** Ends the process; what is not complete is given up. */
  close(): void {
    const { run } = this;
    if (!run) return;
    this.run = null;
    run.writer.close();
    for (const path of [
      run.list,
      ...run.segments.slice(run.kept, run.begun).map((_, i) => run.pieceOf(run.kept + i)),
    ])
      rmSync(path, { force: true });
  }

  private start(segments: readonly Segment[]): Run {
    const { settings, threads } = this;
    const { first: origin, path } = segments[0]!;
    const seconds = (frame: number) =>
      ticksToSeconds((frame - origin) * frameDuration(settings.frameRate));
    const keyFrames = segments.flatMap((segment, i) => [
      ...(i ? [segment.first] : []),
      ...segment.keyFrames,
    ]);
    // Another process of an export that was killed may still be writing.
    const name = join(dirname(path), `run-${randomUUID()}`);
    const list = `${name}.txt`;
    const writer = new PipeWriter([
      '-y',
      ...rawInput(settings, settings.frameRate),
      '-map',
      '0:v',
      ...videoEncoder(settings, keyFrames.map(seconds), threads),
      '-avoid_negative_ts',
      'disabled',
      '-f',
      'segment',
      '-segment_format',
      segmentContainer(settings.format),
      '-segment_frames',
      segments.map(({ last }) => last - origin).join(','),
      '-reset_timestamps',
      '1',
      '-segment_list',
      list,
      '-segment_list_type',
      'flat',
      `${name.replaceAll('%', '%%')}-%d.part`,
    ]);
    return {
      writer,
      segments,
      list,
      pieceOf: (index) => `${name}-${index}.part`,
      begun: 1,
      kept: 0,
    };
  }

  /** Gives their names to the files that are complete. */
  private keepWhole(run: Run): void {
    const whole = lines(run.list);
    for (; run.kept < Math.min(whole, run.begun); run.kept++)
      renameSync(run.pieceOf(run.kept), run.segments[run.kept]!.path);
  }
}

/** The first of some segments and those that follow it without a gap. */
function neighbours(segments: readonly Segment[]): readonly Segment[] {
  const gap = segments.findIndex((segment, i) => i > 0 && segment.first !== segments[i - 1]!.last);
  return segments.slice(0, Math.min(gap < 0 ? segments.length : gap, MOST));
}

/** Whole lines of a text file; none while it is not there. */
function lines(path: string): number {
  try {
    return readFileSync(path, 'utf8').split('\n').length - 1;
  } catch (error) {
    if ((error as { code?: string }).code === 'ENOENT') return 0;
    throw error;
  }
}
