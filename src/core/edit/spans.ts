import { isClearing } from '../layout/clearing';
import { builtInOf, USUAL_LAYOUT } from '../layout/built-in';
import type { Layout, LayoutSpan, Project } from '../project/model';
import { mayOverlap, SPAN_LISTS, type SpanList } from '../project/span-lists';
import type { Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { startingLater } from '../callout/keyframes';
import { EditError } from './error';

export type Span<L extends SpanList> = Project[L][number];

/**
 * Puts a new span in its place; where only one may count, those it covers are cut back or go.
 */
export function addSpan<L extends SpanList>(project: Project, list: L, span: Span<L>): void {
  if (span.end <= span.start) throw new EditError('It needs a length above zero.');
  const all = project[list] as Span<L>[];
  if (!mayOverlap(list)) clearSpans(all, span);
  all.push(span);
  all.sort((a, b) => a.start - b.start);
}

/** Takes a stretch out of spans; one that reaches over both sides keeps its earlier side. */
function clearSpans(
  spans: { start: Ticks; end: Ticks; rampIn?: Ticks; rampOut?: Ticks }[],
  range: Range,
): void {
  for (let i = spans.length - 1; i >= 0; i--) {
    const span = spans[i]!;
    if (span.end <= range.start || span.start >= range.end) continue;
    if (span.start < range.start) span.end = range.start;
    else if (span.end > range.end) span.start = range.end;
    else spans.splice(i, 1);
    fitRamps(span);
  }
}

/** Ramps never take more than the whole of their framing. */
export function fitRamps(span: {
  start: Ticks;
  end: Ticks;
  rampIn?: Ticks;
  rampOut?: Ticks;
}): void {
  if (span.rampIn === undefined || span.rampOut === undefined) return;
  const length = span.end - span.start;
  if (span.rampIn + span.rampOut <= length) return;
  const half = Math.floor(length / 2);
  span.rampIn = Math.min(span.rampIn, half);
  span.rampOut = Math.min(span.rampOut, half);
}

/** The span with an id, in any list. */
export function findSpan(
  project: Project,
  id: string,
): { list: SpanList; span: Span<SpanList> } | null {
  for (const list of SPAN_LISTS) {
    const span = project[list].find((s) => s.id === id);
    if (span) return { list, span };
  }
  return null;
}

/** What may be changed of a span; of a callout, that of any one kind. */
export type SpanChange<S> = S extends unknown ? Partial<Omit<S, 'id' | 'start' | 'end'>> : never;

/** Changes properties of a span, all but its id and times. */
export function changeSpan<L extends SpanList>(
  project: Project,
  list: L,
  id: string,
  change: SpanChange<Span<L>>,
): void {
  const span = (project[list] as Span<L>[]).find((s) => s.id === id);
  if (!span) throw new EditError('It is no longer there.');
  Object.assign(span, change);
  fitRamps(span);
}

/**
 * Gives a span new times. Where spans may not overlap, its neighbours are the limit:
 * moving stops there, with the length kept.
 *
 * @param least shortest length that may remain
 */
export function timeSpan(
  project: Project,
  id: string,
  start: Ticks,
  end: Ticks,
  least: Ticks,
): void {
  const found = findSpan(project, id);
  if (!found) throw new EditError('It is no longer there.');
  const { list, span } = found;
  let low = 0;
  let high = Infinity;
  if (!mayOverlap(list))
    for (const other of project[list]) {
      if (other.id === id) continue;
      if (other.end <= span.start) low = Math.max(low, other.end);
      else if (other.start >= span.end) high = Math.min(high, other.start);
    }
  const length = end - start;
  const moved = length === span.end - span.start;
  if (moved) {
    const from = Math.max(low, Math.min(start, high - length));
    span.start = from;
    span.end = from + length;
  } else {
    const before = span.start;
    span.start = Math.max(low, Math.min(start, end - least, high - least));
    // What is kept at an instant stays there.
    if ('keyframes' in span) span.keyframes = startingLater(span.keyframes, span.start - before);
    span.end = Math.min(high, Math.max(end, span.start + least));
  }
  fitRamps(span);
  (project[list] as Span<SpanList>[]).sort((a, b) => a.start - b.start);
}

/**
 * Moves spans by some ticks, as far as the start and, where they may not overlap, their neighbours
 * allow.
 */
export function moveSpans(project: Project, ids: readonly string[], by: Ticks): void {
  const found = ids.map((id) => findSpan(project, id)).filter((f) => f !== null);
  // In the direction of the move, so that a row of spans does not run into itself.
  found.sort((a, b) => (by > 0 ? b.span.start - a.span.start : a.span.start - b.span.start));
  for (const { span } of found) {
    const start = Math.max(0, span.start + by);
    timeSpan(project, span.id, start, start + span.end - span.start, 1);
  }
}

/** Removes a span of any list; nothing happens when it is not there. */
export function removeSpan(project: Project, id: string): void {
  const found = findSpan(project, id);
  if (!found) return;
  const list = project[found.list] as Span<SpanList>[];
  list.splice(list.indexOf(found.span), 1);
}

/**
 * Sets layouts in which the presenter keeps something clear, in the place of those that were set
 * for that in a stretch; none has them stay in their corner.
 */
export function keepClear(
  project: Project,
  range: Range,
  spans: readonly (Range & { readonly layout: Layout; readonly glide: Ticks })[],
  newId: () => string,
): void {
  project.layouts = project.layouts.filter((span) => !isClearing(span, range));
  for (const { layout, glide, ...times } of spans)
    setLayout(project, times, layout, newId, { glide });
}

/**
 * Sets the layout of a stretch of time; the usual one, which holds everywhere else, clears it.
 *
 * @param way how the one before goes over to it; a cut without
 */
export function setLayout(
  project: Project,
  range: Range,
  layout: Layout,
  newId: () => string,
  { glide = 0, dissolves = false }: Pick<LayoutSpan, 'glide' | 'dissolves'> = {},
): void {
  if (range.end <= range.start) throw new EditError('A layout needs a length above zero.');
  const kept = project.layouts.flatMap((span) => {
    const left = { ...span, end: Math.min(span.end, range.start) };
    const right = { ...span, id: newId(), start: Math.max(span.start, range.end) };
    if (span.end <= range.start || span.start >= range.end) return [span];
    return [left, right].filter((s) => s.end > s.start);
  });
  if (builtInOf(layout) !== builtInOf(USUAL_LAYOUT))
    kept.push({
      ...{ id: newId(), ...range, layout: structuredClone(layout) },
      ...(glide > 0 ? { glide } : {}),
      ...(glide > 0 && dissolves ? { dissolves } : {}),
    });
  project.layouts = kept.sort((a, b) => a.start - b.start);
}
