import { evenSize } from '../scale/export-size';
import type { Size } from '../scale/rect';
import { rateFromNumber, ticksToSeconds, type FrameRate, type Ticks } from '../time/ticks';
import { parseTimecode } from '../time/timecode';
import { FORMAT_FACTS, type Format, type Quality } from './export-formats';
import { presetsFor, type ExportPreset } from './export-presets';

/**
 * Pixels and rate that a GIF is offered at: a minute at a project's own would be hundreds of
 * megabytes.
 */
export const GIF = { share: 1 / 2, rate: 12.5 } as const;

/** What somebody has chosen for an export so far. */
export interface ExportChoice {
  readonly format: Format;
  readonly size: Size;
  readonly frameRate: FrameRate;
  /** A quality, or that the bit rate counts. */
  readonly quality: Quality | 'rate';
  /** Mbit/s. */
  readonly bitRate: number;
  /** Takes sensor noise out of presenters' recordings. */
  readonly calm: boolean;
}

type Canvas = Size & { readonly frameRate: FrameRate };

/**
 * What suits a project's target, by its id; the project's own size and rate where no preset fits
 * its shape.
 */
export function suitedChoice(canvas: Canvas, target: string): ExportChoice {
  const own: ExportChoice = {
    format: 'mp4',
    size: { width: canvas.width, height: canvas.height },
    frameRate: canvas.frameRate,
    quality: 'good',
    bitRate: 8,
    calm: false,
  };
  const preset = presetsFor(canvas).find(({ id }) => id === target);
  return preset ? choosePreset(own, preset) : own;
}

/** A choice with what a preset says in place of its own. */
export const choosePreset = (
  choice: ExportChoice,
  { size, frameRate, quality }: ExportPreset,
): ExportChoice => ({
  ...choice,
  format: 'mp4',
  size,
  frameRate,
  quality,
});

/**
 * A choice of another format: a GIF is made small, and what was small for a GIF's sake becomes the
 * project's own again.
 */
export function chooseFormat(choice: ExportChoice, format: Format, canvas: Canvas): ExportChoice {
  const own: Size = { width: canvas.width, height: canvas.height };
  if (format === 'gif')
    return {
      ...choice,
      format,
      size: evenSize(own, GIF.share),
      frameRate: rateFromNumber(GIF.rate),
    };
  return choice.format === 'gif'
    ? { ...choice, format, size: own, frameRate: canvas.frameRate }
    : { ...choice, format };
}

/** Times as somebody has typed them; empty where they left it. */
export interface TypedRange {
  readonly from: string;
  readonly to: string;
}

/**
 * The stretch of the timeline that was typed, in seconds.
 *
 * @param still whether one picture is asked for: then it is that at `from`, or at the playhead
 * @returns null for all of it; a sentence that says what to type where it can't be understood
 */
export function typedRange(
  { from, to }: TypedRange,
  rate: FrameRate,
  {
    playhead,
    length,
    still,
  }: { readonly playhead: Ticks; readonly length: Ticks; readonly still: boolean },
): { readonly start: number; readonly end: number } | null | string {
  const read = (text: string) => (text.trim() ? parseTimecode(text, rate) : undefined);
  const [start, end] = [read(from), still ? undefined : read(to)];
  if (start === null || end === null) return 'Type the range as times, for example 0:05 and 0:20.';
  if (start === undefined && end === undefined && !still) return null;
  const range = { start: start ?? (still ? playhead : 0), end: end ?? length };
  if (range.start >= length)
    return 'The range starts after the end of the timeline. Choose an earlier start.';
  if (range.end <= range.start) return 'The range ends before it starts. Choose a later end.';
  return { start: ticksToSeconds(range.start), end: ticksToSeconds(range.end) };
}

/** What is asked of the server for a choice and a range. */
export function exportRequest(
  { size, quality, bitRate, ...rest }: ExportChoice,
  range: { start: number; end: number } | null,
) {
  const held = quality === 'rate' && FORMAT_FACTS[rest.format].bitRate;
  return {
    ...rest,
    ...size,
    quality: quality === 'rate' ? ('good' as const) : quality,
    bitRate: held ? bitRate : null,
    range,
  };
}
