import {
  frameAt,
  framesPerSecond,
  frameStart,
  secondsToTicks,
  type FrameRate,
  type Ticks,
} from './ticks';

const two = (n: number) => String(n).padStart(2, '0');

/**
 * `hh:mm:ss:ff`, counted without dropped frames (non-drop, SMPTE ST 12-1). Negative times show as
 * zero.
 */
export function formatTimecode(time: Ticks, rate: FrameRate): string {
  const nominal = Math.round(framesPerSecond(rate));
  const frame = Math.max(0, frameAt(time, rate));
  const seconds = Math.floor(frame / nominal);
  return [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60, frame % nominal]
    .map(two)
    .join(':');
}

/**
 * Reads what a person types for a time: `12` (seconds), `1:05`, `1:02:03`, `00:00:12:04`
 * (the last of four is frames), `12.5`. Answers null when it is none of these.
 */
export function parseTimecode(text: string, rate: FrameRate): Ticks | null {
  const parts = text.trim().split(/[:;]/);
  if (parts.length > 4 || parts.some((part) => !/^\d+([.,]\d+)?$/.test(part))) return null;
  const numbers = parts.map((part) => Number(part.replace(',', '.')));
  if (numbers.length === 4) {
    const [h, m, s, f] = numbers as [number, number, number, number];
    return frameStart(
      (h * 3600 + m * 60 + s) * Math.round(framesPerSecond(rate)) + Math.floor(f),
      rate,
    );
  }
  return secondsToTicks(numbers.reduce((sum, n) => sum * 60 + n, 0));
}

/** `m:ss`, as lists of lengths show it. */
export function formatClock(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  const h = Math.floor(whole / 3600);
  const m = Math.floor(whole / 60) % 60;
  return h ? `${h}:${two(m)}:${two(whole % 60)}` : `${m}:${two(whole % 60)}`;
}
