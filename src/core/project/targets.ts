import type { FrameRate } from '../time/ticks';

export const TARGET_IDS = ['web', 'course', 'deck', 'phone', 'square', 'archive'] as const;
export type TargetId = (typeof TARGET_IDS)[number];

export const CAPTION_NEEDS = ['none', 'optional', 'needed'] as const;
export type CaptionNeed = (typeof CAPTION_NEEDS)[number];

/** Where a tutorial will be shown, and the size, rate, loudness and captions that suit it. */
export interface Target {
  readonly id: TargetId;
  readonly name: string;
  /** Frame pixels. */
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  /** Integrated loudness, LUFS. */
  readonly loudness: number;
  readonly captions: CaptionNeed;
  /** Width in CSS pixels at which it is seen on the smallest screen that it is for. */
  readonly seenAt: number;
  /** Why these. */
  readonly reason: string;
}

const THIRTY: FrameRate = { num: 30, den: 1 };

/**
 * What suits each place. Loudness: -16 LUFS for speech heard on small speakers, -18 for a room
 * (AES TD1008 gives -18 for speech in streams), -23 for programme exchange (EBU R 128).
 */
export const TARGETS: readonly Target[] = [
  {
    id: 'web',
    name: 'Web page',
    width: 1920,
    height: 1080,
    frameRate: THIRTY,
    loudness: -16,
    captions: 'optional',
    seenAt: 1280,
    reason: 'Fills a laptop’s screen; loud enough for its small speakers.',
  },
  {
    id: 'course',
    name: 'Course platform',
    width: 1920,
    height: 1080,
    frameRate: THIRTY,
    loudness: -16,
    captions: 'needed',
    seenAt: 1280,
    reason: 'As on a web page; most course platforms ask for captions.',
  },
  {
    id: 'deck',
    name: 'Slide deck',
    width: 1280,
    height: 720,
    frameRate: THIRTY,
    loudness: -18,
    captions: 'none',
    seenAt: 1024,
    reason: 'Shown inside a slide and heard in a room; a small file.',
  },
  {
    id: 'phone',
    name: 'Phone, upright',
    width: 1080,
    height: 1920,
    frameRate: THIRTY,
    loudness: -16,
    captions: 'needed',
    seenAt: 390,
    reason: 'Often watched without sound, so captions carry it.',
  },
  {
    id: 'square',
    name: 'Square',
    width: 1080,
    height: 1080,
    frameRate: THIRTY,
    loudness: -16,
    captions: 'needed',
    seenAt: 390,
    reason: 'Stands in a feed, often without sound.',
  },
  {
    id: 'archive',
    name: 'Archive, large',
    width: 2560,
    height: 1440,
    frameRate: THIRTY,
    loudness: -23,
    captions: 'optional',
    seenAt: 1920,
    reason: 'As large as it was recorded, at the level for exchange (EBU R 128).',
  },
];

/** The target with an id. */
export const targetOf = (id: TargetId): Target => TARGETS.find((t) => t.id === id)!;
