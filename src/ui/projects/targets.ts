import type { FrameRate } from '@/core/time/ticks';

/** Where a tutorial will be shown, and the picture size that suits it. */
export interface Target {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
}

export const TARGETS: readonly Target[] = [
  { id: 'web', name: 'Web page or course platform', width: 1920, height: 1080 },
  { id: 'deck', name: 'Slide deck', width: 1280, height: 720 },
  { id: 'phone', name: 'Phone, upright', width: 1080, height: 1920 },
  { id: 'square', name: 'Square', width: 1080, height: 1080 },
  { id: 'archive', name: 'Archive, large', width: 2560, height: 1440 },
];

export const RATES: readonly (readonly [string, FrameRate])[] = [
  ['24', { num: 24, den: 1 }],
  ['25', { num: 25, den: 1 }],
  ['29.97', { num: 30000, den: 1001 }],
  ['30', { num: 30, den: 1 }],
  ['50', { num: 50, den: 1 }],
  ['60', { num: 60, den: 1 }],
];
