import { parseArgs } from 'node:util';
import { rateFromNumber, type FrameRate } from '@/core/time/ticks';
import type { Quality } from '@/core/project/export-formats';
import { FORMAT_FACTS, FORMATS, QUALITIES, type Format } from '@/core/project/export-formats';
import { ROLES, type Role } from '@/core/project/sources';

/** The command was called in a way it doesn't know; exit code 2. */
export class UsageError extends Error {}

const OPTIONS = {
  name: { type: 'string' },
  size: { type: 'string' },
  fps: { type: 'string' },
  role: { type: 'string' },
  pointer: { type: 'string' },
  place: { type: 'boolean' },
  at: { type: 'string' },
  out: { type: 'string' },
  range: { type: 'string' },
  quality: { type: 'string' },
  format: { type: 'string' },
  'bit-rate': { type: 'string' },
  calm: { type: 'boolean' },
  limit: { type: 'string' },
  lively: { type: 'string' },
  hold: { type: 'string' },
  explain: { type: 'boolean' },
  args: { type: 'string' },
  kind: { type: 'string' },
  list: { type: 'boolean' },
  whole: { type: 'boolean' },
  covers: { type: 'boolean' },
  words: { type: 'string' },
  shot: { type: 'string' },
  json: { type: 'boolean' },
  help: { type: 'boolean' },
} as const;

export type Values = ReturnType<typeof read>['values'];

function read(argv: readonly string[]) {
  return parseArgs({ args: [...argv], options: OPTIONS, allowPositionals: true });
}

/** Verb, operands and options of a call. */
export function readArguments(argv: readonly string[]) {
  try {
    const { values, positionals } = read(argv);
    return { verb: positionals[0], operands: positionals.slice(1), values };
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}

export function required(value: string | undefined, what: string): string {
  if (!value) throw new UsageError(`${what} is missing.`);
  return value;
}

export function parseSize(text: string): { width: number; height: number } {
  const match = /^(\d{2,5})x(\d{2,5})$/i.exec(text);
  if (!match)
    throw new UsageError(`--size is WIDTHxHEIGHT in pixels, as in 1920x1080; "${text}" is not.`);
  return { width: Number(match[1]), height: Number(match[2]) };
}

export function parseRate(text: string): FrameRate {
  const [num, den] = text.split('/').map(Number);
  const fps = den === undefined ? num! : num! / den;
  try {
    return rateFromNumber(fps);
  } catch {
    throw new UsageError(`--fps is a number from 1 to 240; "${text}" is not.`);
  }
}

export function parseSeconds(text: string, option: string): number {
  const seconds = text.trim() === '' ? NaN : Number(text);
  if (!(seconds >= 0)) throw new UsageError(`${option} is a time in seconds; "${text}" is not.`);
  return seconds;
}

export function parseRange(text: string, option = '--range'): { start: number; end: number } {
  const match = /^([\d.]+)-([\d.]+)$/.exec(text);
  const range = match && { start: Number(match[1]), end: Number(match[2]) };
  if (!range || !(range.end > range.start))
    throw new UsageError(`${option} is START-END in seconds, as in 3.5-12; "${text}" is not.`);
  return range;
}

const oneOf = <T extends string>(list: readonly T[], text: string, option: string): T => {
  if ((list as readonly string[]).includes(text)) return text as T;
  throw new UsageError(`${option} is one of ${list.join(', ')}; "${text}" is not.`);
};

export const parseRole = (text: string): Role => oneOf(ROLES, text, '--role');
export const parseFormat = (text: string): Format => oneOf(FORMATS, text, '--format');

/** The format that a file's name asks for; MP4 when it says nothing. */
export function formatOf(path: string): Format {
  const extension = /\.([^./\\]+)$/.exec(path)?.[1]?.toLowerCase();
  return FORMATS.find((format) => FORMAT_FACTS[format].extension === extension) ?? 'mp4';
}

export function parseBitRate(text: string): number {
  const rate = Number(text);
  if (!(rate >= 0.1 && rate <= 200))
    throw new UsageError(`--bit-rate is 0.1 to 200 Mbit/s; "${text}" is not.`);
  return rate;
}

export const parseQuality = (text: string): Quality => oneOf(QUALITIES, text, '--quality');
