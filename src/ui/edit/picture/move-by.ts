import type { CalloutScene, Move } from '@/core/callout/kind';

/** How far a handle of a callout is moved by a way in frame pixels. */
export const moveBy = (on: CalloutScene, dx: number, dy: number): Move => ({
  by: { dx: dx / on.scale, dy: dy / on.scale },
  frame: { dx, dy },
});
