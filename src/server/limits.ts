/*
 * Every limit that keeps one request or one file from stopping the rest, with the setting that
 * changes it. The table in docs/security.md is checked against this one.
 */

interface Limit {
  readonly value: number;
  /** Name of the environment variable that sets it. */
  readonly setting: string;
  readonly unit: 'bytes' | 'seconds' | 'days' | 'hours' | 'items';
  readonly what: string;
}

const KB = 1 << 10;
const MB = 1 << 20;
const GB = 1 << 30;

export const LIMITS = {
  body: {
    value: 256 * KB,
    setting: 'VISTUM_MAX_BODY',
    unit: 'bytes',
    what: 'of an ordinary request',
  },
  bodyValues: {
    value: 4000,
    setting: 'VISTUM_MAX_BODY_VALUES',
    unit: 'items',
    what: 'values in an ordinary request',
  },
  save: {
    value: 24 * MB,
    setting: 'VISTUM_MAX_SAVE',
    unit: 'bytes',
    what: 'of a project that is saved, with its history',
  },
  saveValues: {
    value: 5_000_000,
    setting: 'VISTUM_MAX_SAVE_VALUES',
    unit: 'items',
    what: 'values in a project that is saved, with its history',
  },
  change: {
    value: 1 * MB,
    setting: 'VISTUM_MAX_CHANGE',
    unit: 'bytes',
    what: 'of a change to a project',
  },
  changeValues: {
    value: 200_000,
    setting: 'VISTUM_MAX_CHANGE_VALUES',
    unit: 'items',
    what: 'values in a change to a project',
  },
  depth: {
    value: 32,
    setting: 'VISTUM_MAX_DEPTH',
    unit: 'items',
    what: 'levels of nesting in any request',
  },
  checkSeconds: {
    value: 10,
    setting: 'VISTUM_MAX_CHECK_SECONDS',
    unit: 'seconds',
    what: 'for checking a document that was sent',
  },
  checkMemory: {
    value: 512 * MB,
    setting: 'VISTUM_MAX_CHECK_MEMORY',
    unit: 'bytes',
    what: 'of memory for checking a document that was sent',
  },
  piece: {
    value: 64 * MB,
    setting: 'VISTUM_MAX_PIECE',
    unit: 'bytes',
    what: 'of one piece of a take',
  },
  upload: {
    value: 64 * GB,
    setting: 'VISTUM_MAX_UPLOAD',
    unit: 'bytes',
    what: 'of one recording',
  },
  track: {
    value: 64 * MB,
    setting: 'VISTUM_MAX_TRACK',
    unit: 'bytes',
    what: 'of one pointer track',
  },
  listeners: {
    value: 500,
    setting: 'VISTUM_MAX_LISTENERS',
    unit: 'items',
    what: 'tabs that listen for changes at once',
  },
  mediaMemory: {
    value: 4 * GB,
    setting: 'VISTUM_MAX_MEDIA_MEMORY',
    unit: 'bytes',
    what: 'of memory for one FFmpeg that reads a recording',
  },
  mediaOutput: {
    value: 64 * GB,
    setting: 'VISTUM_MAX_MEDIA_OUTPUT',
    unit: 'bytes',
    what: 'of one file that FFmpeg writes',
  },
  probeSeconds: {
    value: 300,
    setting: 'VISTUM_MAX_PROBE_SECONDS',
    unit: 'seconds',
    what: 'for finding out what a file is',
  },
  ingestSeconds: {
    value: 6 * 3600,
    setting: 'VISTUM_MAX_INGEST_SECONDS',
    unit: 'seconds',
    what: 'for preparing one recording',
  },
  exportSeconds: {
    value: 48 * 3600,
    setting: 'VISTUM_MAX_EXPORT_SECONDS',
    unit: 'seconds',
    what: 'for one export',
  },
  trackSeconds: {
    value: 120,
    setting: 'VISTUM_MAX_TRACK_SECONDS',
    unit: 'seconds',
    what: 'for reading one pointer track',
  },
  sightSeconds: {
    value: 6 * 3600,
    setting: 'VISTUM_MAX_SIGHT_SECONDS',
    unit: 'seconds',
    what: 'for looking through one screen recording or export',
  },
  drawingSeconds: {
    value: 30,
    setting: 'VISTUM_MAX_DRAWING_SECONDS',
    unit: 'seconds',
    what: 'for drawing one SVG',
  },
  toolMemory: {
    value: 2 * GB,
    setting: 'VISTUM_MAX_TOOL_MEMORY',
    unit: 'bytes',
    what: 'of memory for drawing an SVG or reading a pointer track',
  },
  stillSeconds: {
    value: 120,
    setting: 'VISTUM_MAX_STILL_SECONDS',
    unit: 'seconds',
    what: 'in which a render finishes no picture before it is ended',
  },
  hours: {
    value: 24,
    setting: 'VISTUM_MAX_HOURS',
    unit: 'hours',
    what: 'of one recording',
  },
  frames: {
    value: 6_000_000,
    setting: 'VISTUM_MAX_FRAMES',
    unit: 'items',
    what: 'pictures of one recording',
  },
  jobs: {
    value: 3,
    setting: 'VISTUM_JOBS',
    unit: 'items',
    what: 'recordings that are prepared at once; one project has all but one of them at most',
  },
  keepDays: {
    value: 7,
    setting: 'VISTUM_KEEP_DAYS',
    unit: 'days',
    what: 'in which what was deleted can be brought back',
  },
} as const satisfies Readonly<Record<string, Limit>>;

export type LimitName = keyof typeof LIMITS;

/**
 * The value of a limit: its setting where that is a number of at least 0, its default otherwise.
 */
export function limit(name: LimitName): number {
  const { setting, value } = LIMITS[name];
  const text = process.env[setting]?.trim();
  const set = text ? Number(text) : NaN;
  return Number.isFinite(set) && set >= 0 ? set : value;
}

/** A number of bytes for a sentence: "256 KB". */
export function bytesInWords(bytes: number): string {
  if (bytes >= GB) return `${Number((bytes / GB).toFixed(1))} GB`;
  if (bytes >= MB) return `${Number((bytes / MB).toFixed(1))} MB`;
  return `${Math.ceil(bytes / KB)} KB`;
}
