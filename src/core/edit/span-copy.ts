import { assertNever } from '../assert-never';
import { viewInOther } from '../framing/by-hand';
import type { Callout, Framing, LayoutSpan, PointerSpan, Project } from '../project/model';
import { areaOf, spanAt } from '../project/query';
import { footageOf, type Sources } from '../project/sources';
import type { SpanList } from '../project/span-lists';
import type { Rect } from '../scale/rect';
import { wholeView } from '../scale/sharpness';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';
import { addSpan, findSpan, setLayout } from './spans';

/** What a callout stands on where its recording is not there: what it followed is not either. */
const anchorElsewhere = (anchor: Callout['anchor'], footageId: string): Callout['anchor'] =>
  anchor.to === 'pointer' ? { to: 'pointer', footageId } : { to: 'footage', footageId };

/**
 * A span that was copied; plain data, so that another project can take it. One over a recording
 * says what the whole of that was, so that it fits another.
 */
export type CopiedSpan =
  | { readonly list: 'framings'; readonly span: Framing; readonly whole: Rect | null }
  | { readonly list: 'callouts'; readonly span: Callout }
  | { readonly list: 'pointer'; readonly span: PointerSpan }
  | { readonly list: 'layouts'; readonly span: LayoutSpan };

const wholeOf = (project: Project, sources: Sources, footageId: string): Rect | null => {
  const footage = footageOf(sources, footageId);
  return footage ? wholeView(areaOf(project, footage), project.canvas) : null;
};

/** Copies the span with an id; null where there is none. */
export function copySpan(project: Project, sources: Sources, id: string): CopiedSpan | null {
  const found = findSpan(project, id);
  if (!found) return null;
  // The list tells what its spans are.
  const copied = { list: found.list, span: found.span } as CopiedSpan;
  return copied.list === 'framings'
    ? { ...copied, whole: wholeOf(project, sources, copied.span.footageId) }
    : copied;
}

/**
 * Pastes a copied span at an instant, as long as it was; where only one may count, it takes the
 * place of what is there.
 *
 * @param footageId the recording at that instant; what stood on one that is not here stands on it
 * @returns the list and the id of the new span
 * @throws EditError where it needs a recording and there is none
 */
export function pasteSpan(
  project: Project,
  sources: Sources,
  copied: CopiedSpan,
  time: Ticks,
  footageId: string | null,
  newId: () => string,
): { list: SpanList; id: string } {
  const { list } = copied;
  const placed = { id: newId(), start: time, end: time + copied.span.end - copied.span.start };
  const footing = (): string => {
    if (footageId === null) throw new EditError('There is no screen recording under the playhead.');
    return footageId;
  };
  switch (copied.list) {
    case 'framings': {
      const to = wholeOf(project, sources, footing());
      const from = copied.whole ?? to;
      if (!to || !from) throw new EditError('The recording at the playhead is not there.');
      const { rect, endRect } = copied.span;
      addSpan(project, 'framings', {
        ...copied.span,
        ...placed,
        footageId: footing(),
        rect: { ...viewInOther(rect, from, to) },
        endRect: endRect && { ...viewInOther(endRect, from, to) },
        pinned: true,
      });
      break;
    }
    case 'callouts': {
      const { anchor } = copied.span;
      const isHere = anchor.to === 'frame' || footageOf(sources, anchor.footageId);
      addSpan(project, 'callouts', {
        ...copied.span,
        ...placed,
        anchor: isHere ? anchor : anchorElsewhere(anchor, footing()),
      });
      break;
    }
    case 'pointer':
      addSpan(project, 'pointer', { ...copied.span, ...placed });
      break;
    case 'layouts':
      setLayout(project, placed, copied.span.layout, newId, copied.span);
      // It got an id of its own, unless it is the usual one, which is no span.
      return { list, id: spanAt(project.layouts, placed.start)?.id ?? placed.id };
    default:
      assertNever(copied);
  }
  return { list, id: placed.id };
}
