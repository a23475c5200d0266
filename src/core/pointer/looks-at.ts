import { contains } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { LOOKS, type PointerLookName } from './looks';
import type { PointerLook, PointerSpan } from './model';

/** A look that is on at an instant, and how far the fades of its span have let it in. */
export interface LookNow {
  readonly look: PointerLook;
  readonly span: PointerSpan;
  /** 0 to 1. */
  readonly strength: number;
}

/** How far the fades of a span let its looks in at an instant, 0 to 1. */
function strengthAt({ start, end, fadeIn, fadeOut }: PointerSpan, time: Ticks): number {
  const side = (passed: number, fade: number) => (fade > 0 ? passed / fade : 1);
  return Math.max(0, Math.min(1, side(time - start, fadeIn), side(end - time, fadeOut)));
}

const ORDER = Object.keys(LOOKS) as PointerLookName[];

/**
 * The looks of the pointer that are on at an instant, in the order in which they are drawn: of each
 * kind the one whose span began last.
 *
 * @param spans of the project, ordered by start
 */
export function looksAt(spans: readonly PointerSpan[], time: Ticks): LookNow[] {
  const found = new Map<PointerLookName, LookNow>();
  for (const span of spans)
    if (contains(span, time))
      for (const look of span.looks)
        found.set(look.kind, { look, span, strength: strengthAt(span, time) });
  return ORDER.flatMap((kind) => found.get(kind) ?? []);
}
