import { readFileSync } from 'node:fs';

/** Clock ticks a second that Linux counts processor time in. */
const CLOCK = 100;

/** Processor seconds used so far: by this process, and by the children that have ended. */
export function processorSeconds(): { own: number; children: number } {
  const fields = readFileSync('/proc/self/stat', 'utf8')
    .replace(/^.*\) /, '')
    .split(' ')
    .map(Number);
  return {
    own: (fields[11]! + fields[12]!) / CLOCK,
    children: (fields[13]! + fields[14]!) / CLOCK,
  };
}

export interface Cost {
  /** Seconds by the clock. */
  readonly wall: number;
  /** Processor seconds of this process and of its children. */
  readonly own: number;
  readonly children: number;
}

/** Runs something and tells what it took. */
export async function costOf(work: () => unknown): Promise<Cost> {
  const before = processorSeconds();
  const started = performance.now();
  await work();
  const wall = (performance.now() - started) / 1000;
  const after = processorSeconds();
  return { wall, own: after.own - before.own, children: after.children - before.children };
}

export const median = (list: readonly number[]): number =>
  [...list].sort((a, b) => a - b)[list.length >> 1]!;

/** Rows as a table in Markdown. */
export const table = (
  head: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): string =>
  [head, head.map(() => '---'), ...rows].map((row) => `| ${row.join(' | ')} |`).join('\n');
