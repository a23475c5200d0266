import type { KeyboardEvent } from 'react';

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ...{ ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] },
};

/**
 * The way that an arrow key moves what has the focus, in steps across and down; null for other keys.
 * The key is then taken: it does not move the playhead as well.
 */
export function takeArrow(event: KeyboardEvent): readonly [dx: number, dy: number] | null {
  const way = WAYS[event.key];
  if (!way || event.altKey || event.ctrlKey || event.metaKey) return null;
  event.preventDefault();
  event.stopPropagation();
  return way;
}
