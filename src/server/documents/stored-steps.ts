import { historyLine, type History } from '@/core/edit/history';

/** A history that grew out of all proportion loses its oldest steps, not the save. */
const MOST_HISTORY = 8 << 20;

/** An undo history as it is stored: the text of each step, and how many of them are done. */
export interface StoredSteps {
  readonly steps: readonly string[];
  readonly done: number;
}

/** How many of the oldest steps have to go so that the others are in proportion. */
export function surplus(sizes: readonly number[]): number {
  let room = MOST_HISTORY;
  let kept = sizes.length;
  while (kept > 0 && sizes[kept - 1]! <= room) room -= sizes[--kept]!;
  return kept;
}

/** A history as it is stored; one that is out of all proportion loses its oldest steps. */
export function storedSteps(history: History): StoredSteps {
  const all = historyLine(history).map((entry) => JSON.stringify(entry));
  const gone = surplus(all.map((text) => text.length));
  return { steps: all.slice(gone), done: Math.max(0, history.done.length - gone) };
}

/**
 * What is stored for a history's text, as it once stood with its project: a text that is no
 * history is one step, which can't be read either.
 */
export function stepsOfText(text: string): StoredSteps {
  try {
    const { done, undone } = JSON.parse(text) as History;
    return storedSteps({ done: [...done], undone: [...undone] });
  } catch {
    return { steps: [text], done: 1 };
  }
}
