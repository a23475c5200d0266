import type { LayoutKind } from '@/core/project/model';

/** What the layouts are called on screen. */
export const LAYOUT_NAMES: Readonly<Record<LayoutKind, string>> = {
  corner: 'Screen, presenter in the corner',
  presenter: 'Presenter only',
  screen: 'Screen only',
};
