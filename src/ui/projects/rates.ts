import type { FrameRate } from '@/core/time/ticks';

export const RATES: readonly (readonly [string, FrameRate])[] = [
  ['24', { num: 24, den: 1 }],
  ['25', { num: 25, den: 1 }],
  ['29.97', { num: 30000, den: 1001 }],
  ['30', { num: 30, den: 1 }],
  ['50', { num: 50, den: 1 }],
  ['60', { num: 60, den: 1 }],
];
